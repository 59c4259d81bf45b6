"""The demo for every journey anew: worked out once, then put in its place row by row, a hundred times as fast."""

from django.apps import apps
from django.db import connection

from server.demo.load import load

_kept = set[bool]()


def put_demo(whole):
    """Have the demo as it is loaded in an empty database; `whole`: with what the crew bent before, and its rack."""
    if whole not in _kept:
        load(fresh=True, whole=whole)
        _run([f"CREATE TABLE `{_kept_as(table, whole)}` AS SELECT * FROM `{table}`" for table in _tables()])
        _kept.add(whole)
        return
    _run([f"INSERT INTO `{table}` SELECT * FROM `{_kept_as(table, whole)}`" for table in _tables()])


def take_all_away():
    """Leave nothing of what a journey did: neither ours, nor sessions and wrong guesses that other packages count."""
    _run([f"DELETE FROM `{table}`" for table in _tables()])


def _tables():
    """All but those that are the same whatever anybody does."""
    models = apps.get_models(include_auto_created=True)
    return [model._meta.db_table for model in models if model._meta.app_label not in ("contenttypes", "auth")]


def _kept_as(table, whole):
    return f"kept_{'whole' if whole else 'small'}_{table}"


def _run(statements):
    with connection.constraint_checks_disabled(), connection.cursor() as cursor:
        for statement in statements:
            cursor.execute(statement)
