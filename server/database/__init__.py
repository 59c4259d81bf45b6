"""Django's backend for MariaDB, as the server uses it."""
