"""People and crews. A person works in one crew; everything a crew owns is seen by that crew alone."""

from typing import Self

from django.contrib.auth.models import AbstractUser
from django.db import models


class User(AbstractUser):
    """A person who signs in."""


def name_of(user: User | None) -> str:
    """How a person is called."""
    return (user.get_full_name() or user.username) if user else "Someone"


class Crew(models.Model):
    """People who share jobs, shoes and a scrap rack."""

    name = models.CharField(max_length=80)
    last_tag = models.PositiveIntegerField(default=0, help_text="The last scrap tag given out.")
    is_demo = models.BooleanField(default=False)


class Role(models.TextChoices):
    """What a person may do in the crew."""

    LEAD = "lead"
    BENDER = "bender"
    VIEWER = "viewer"


class Membership(models.Model):
    """A person's place in a crew."""

    user = models.OneToOneField(User, on_delete=models.CASCADE, related_name="membership")
    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=8, choices=Role.choices)


class CrewQuerySet(models.QuerySet):  # type: ignore[type-arg]
    """The only way to a crew's things: through the person who asks."""

    def for_user(self, user: User) -> Self:
        """What belongs to the person's crew; nothing for a person without one."""
        return self.filter(crew__memberships__user=user)


class CrewOwned(models.Model):
    """Something that belongs to one crew."""

    crew = models.ForeignKey(Crew, on_delete=models.CASCADE, related_name="+")

    objects = CrewQuerySet.as_manager()

    class Meta:
        """Not a table of its own."""

        abstract = True
