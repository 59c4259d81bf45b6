"""Commands of `manage.py`."""
