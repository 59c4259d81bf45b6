"""Letters to a person whose password, second factor or address was changed, where the server has a mail server."""

from django.conf import settings
from django.core.mail import send_mail
from django.db import transaction
from django_tasks import task

from server.accounts.history import What
from server.accounts.models import User, name_of

QUEUE = "mail"
SUBJECT = "Your sign-in to Crelda was changed"
SAYS = {
    What.CHANGED_PASSWORD: "The password of “{username}” was changed.",
    What.SECOND_FACTOR: "The second factor of “{username}” was turned on or off.",
    What.PROVIDER: "Signing in as “{username}” by the company’s account was turned on or off.",
    What.CHANGED_ADDRESS: "The e-mail address of “{username}” was changed.",
}
LETTER = """{name},

{says}

If it was you there is nothing to do. If it was not, tell the lead of your crew at once, who can give you a link for a
new password.
"""


def is_set() -> bool:
    """Whether there is a mail server."""
    return bool(settings.EMAIL_HOST)


def tell(user: User, what: What, address: str = "") -> None:
    """Write to a person, at `address` where that is another than today's, once what was done stands."""
    to = address or user.email
    if to and is_set():
        words = SAYS[what].format(username=user.username)
        transaction.on_commit(lambda: send_notice.enqueue(to, LETTER.format(name=name_of(user), says=words)))


@task(queue_name=QUEUE)
def send_notice(to: str, letter: str) -> None:
    """Send it."""
    send_mail(SUBJECT, letter, None, [to])
