"""What is kept of a person: told to them, shut, or erased. What they did stays the crew's, under a neutral name."""

import re
from collections.abc import Iterator
from typing import Any

from axes.models import AccessAttempt, AccessLog
from django.apps import apps
from django.db import models, transaction
from django.dispatch import Signal

from server.accounts import second_factor
from server.accounts.history import What, record
from server.accounts.members import void_invitations
from server.accounts.models import Event, Identity, Invitation, User, name_of
from server.accounts.sessions import sessions_of, sign_out_elsewhere

# Sent, in the same transaction, when a person's `name` is not kept any more and is `neutral` from now on.
erased = Signal()
# A secret is nobody's to have on paper, not even its owner's.
SECRET = {"password", "key", "token", "bin_key", "session_key", "data"}


def everything_of(user: User) -> dict[str, Any]:
    """All that is kept of a person, by its kind; without secrets and pictures."""
    own = {"username": user.username, "first": user.first_name, "last": user.last_name, "email": user.email}
    places = [{"crew": one.crew.name, "role": one.role, "since": one.joined_at} for one in user.memberships.all()]
    told = {"person": own, "crews": places, "signed in": sessions_of(user, None)}
    return told | {name: rows for name, rows in _rows_of(user) if rows}


def _rows_of(user: User) -> Iterator[tuple[str, list[dict[str, Any]]]]:
    """Rows that point at a person: what they made, did or were given."""
    for model in apps.get_models():
        links = [one for one in model._meta.concrete_fields if one.related_model is User]
        columns = [one.attname for one in model._meta.concrete_fields if one.name not in SECRET]
        for link in links:
            rows = model._default_manager.filter(**{link.attname: user.pk}).order_by("pk").values(*columns)
            yield f"{model._meta.verbose_name}, {link.name}", list(rows)


@transaction.atomic
def shut_out(user: User, by: User | None = None) -> None:
    """Nobody signs in as this person any more, anywhere; all that they made open is void."""
    user.is_active = False
    user.save(update_fields=["is_active"])
    sign_out_elsewhere(user)
    for place in user.memberships.select_related("crew"):
        void_invitations(place)
        record(place.crew, by, What.SHUT_OUT, name_of(user))


@transaction.atomic
def let_back(user: User, by: User | None = None) -> None:
    """The person signs in again, as before."""
    user.is_active = True
    user.save(update_fields=["is_active"])
    for place in user.memberships.select_related("crew"):
        record(place.crew, by, What.LET_BACK, name_of(user))


@transaction.atomic
def erase(user: User) -> str:
    """Forget who a person is; what they did stays, by the name that is given back. They are in no crew any more."""
    name, neutral = name_of(user), f"Former member {user.pk}"
    shut_out(user)
    second_factor.remove(user)
    Identity.objects.filter(user=user).delete()
    crews = [one.crew_id for one in user.memberships.all()]
    named = re.compile("|".join(rf"\b{re.escape(one)}\b" for one in (name, user.username)))
    for event in Event.objects.filter(models.Q(crew__in=crews) | models.Q(by=user)).iterator():
        about = named.sub(neutral, event.about)
        if about != event.about:
            Event.objects.filter(pk=event.pk).update(about=about[:200])
    Invitation.objects.filter(models.Q(made_by=user) | models.Q(used_by=user)).update(name="")
    for kind in (AccessAttempt, AccessLog):
        kind.objects.filter(username=user.username).delete()
    erased.send(User, user=user, crews=crews, name=name, neutral=neutral)
    user.memberships.all().delete()
    user.companies.clear()
    user.working_in = None
    user.username, user.first_name, user.last_name, user.email = f"former-{user.pk}", neutral, "", ""
    user.set_unusable_password()
    user.save()
    return neutral
