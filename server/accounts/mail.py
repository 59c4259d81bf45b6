"""The letter with a link for a forgotten password, where the server has a mail server.

Whether a name is known is told to nobody: what is asked is always answered the same, and looked up by a planner.
"""

from datetime import timedelta

from django.core.mail import send_mail
from django.db.models import Q
from django.utils import timezone
from django_tasks import task

from server.accounts.history import What, record
from server.accounts.models import User, name_of
from server.accounts.notices import QUEUE
from server.accounts.passwords import token_for

# So often at most a person is written to, whoever asks.
PAUSE = timedelta(minutes=10)
SUBJECT = "A new password for Crelda"
LETTER = """{name},

somebody, perhaps you, asked for a new password for “{username}”. This link sets one, once, within three days:

{link}

If it was not you there is nothing to do: the password stays as it is.
"""


@task(queue_name=QUEUE)
def send_password_link(known_as: str, address: str) -> None:
    """Write to whoever signs in by a name, or has an e-mail address; `address`: where links begin."""
    known = Q(username=known_as) | Q(email__iexact=known_as)
    user = User.objects.filter(known, is_active=True).exclude(email="").first()
    now = timezone.now()
    if not user or not user.place:
        return
    # One of several who ask at once writes.
    waited = Q(written_to_at=None) | Q(written_to_at__lt=now - PAUSE)
    if not User.objects.filter(waited, pk=user.pk).update(written_to_at=now):
        return
    link = f"{address}/password/{token_for(user)}"
    send_mail(SUBJECT, LETTER.format(name=name_of(user), username=user.username, link=link), None, [user.email])
    record(user.place.crew, None, What.MADE_LINK, f"{name_of(user)}, by mail")
