"""How passwords are hashed: argon2id, in as much memory and time as OWASP asks for at least (Password Storage).

Django's own setting takes five times the memory and eight threads, 0.4 s of a processor; a crew of two hundred that
signs in at seven in the morning would wait for minutes. A password hashed so before is hashed anew when it is used.
"""

from django.contrib.auth.hashers import Argon2PasswordHasher


class Argon2(Argon2PasswordHasher):
    """19 MiB, two passes, one lane."""

    time_cost = 2
    memory_cost = 19 * 1024
    parallelism = 1
