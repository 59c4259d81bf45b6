"""People, for whoever runs the server: who there is, and links for them."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import transaction

from server.accounts import beginning
from server.accounts.models import Crew, Role, User, name_of
from server.accounts.passwords import save_person, token_for
from server.accounts.privacy import erase, everything_of, let_back, shut_out
from server.errors import Refused

OF_A_PERSON = {
    "link": "print a link by which somebody sets a new password",
    "export": "print all that is kept of somebody, as JSON",
    "shut-out": "sign somebody out everywhere, for as long as you say",
    "let-back": "let somebody sign in again who was shut out",
    "erase": "forget who somebody is; what they did stays, under a neutral name",
}


class Command(BaseCommand):
    """Without a word: who is in which crew. Links are good for one person, once."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """What to do, and where the server is."""
        parser.add_argument("--address", default="", help="what links begin with")
        parser.add_argument("--if-none", action="store_true", help="say something only where there is no crew yet")
        does = parser.add_subparsers(dest="does", metavar="WHAT")
        crew = does.add_parser("crew", help="begin a crew, and print the link by which its lead sets a password")
        crew.add_argument("name", help="what the crew is called")
        crew.add_argument("lead", help="the name that its lead signs in by; a new one makes a new person")
        for name, says in OF_A_PERSON.items():
            one = does.add_parser(name, help=says)
            one.add_argument("username", help="the name that they sign in by")
            if name == "erase":
                one.add_argument("--yes", action="store_true", help="do it: it cannot be undone")

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it and print what came of it."""
        address = options["address"].rstrip("/")
        match options["does"]:
            case "crew":
                self.stdout.write(f"{address}/password/{self._crew(options['name'], options['lead'])}")
            case "link":
                self.stdout.write(f"{address}/password/{token_for(_person(options['username']))}")
            case "export":
                told = everything_of(_person(options["username"]))
                self.stdout.write(json.dumps(told, indent=1, default=str, ensure_ascii=False))
            case "shut-out":
                shut_out(_person(options["username"]))
                self.stdout.write(f"{options['username']} is signed out everywhere and cannot sign in any more.")
            case "let-back":
                let_back(_person(options["username"]))
                self.stdout.write(f"{options['username']} can sign in again.")
            case "erase":
                self._erase(_person(options["username"]), options["yes"])
            case _:
                self._list(address, options["if_none"])

    def _crew(self, name: str, username: str) -> str:
        """Begin a crew; the token for its lead's password."""
        try:
            with transaction.atomic():
                lead = User.objects.filter(username=username).first() or User(username=username)
                if not lead.pk:
                    lead.set_unusable_password()
                    save_person(lead)
                beginning.found_crew(name, lead)
        except Refused as error:
            raise CommandError(f"{error} {' '.join(error.places.values())}") from error
        return token_for(lead)

    def _erase(self, user: User, yes: bool) -> None:
        name = name_of(user)
        if not yes:
            raise CommandError(f"nothing was done. To forget who {name} is, for good, add --yes.")
        self.stdout.write(f"{name} is “{erase(user)}” from now on; what they did stays the crew's.")

    def _list(self, address: str, only_if_none: bool) -> None:
        if beginning.is_needed():
            self.stdout.write("There is no crew yet. Begin it here (the link is good for a week):")
            self.stdout.write(f"{address}/begin/{beginning.token()}")
            return
        if only_if_none:
            return
        for crew in Crew.objects.order_by("name"):
            self.stdout.write(crew.name)
            places = crew.memberships.select_related("user")
            for place in sorted(places, key=lambda one: list(Role).index(Role(one.role))):
                self.stdout.write(f"  {place.role:<7} {place.user.username:<20} {name_of(place.user)}")


def _person(username: str) -> User:
    user = User.objects.filter(username=username).first()
    if not user:
        raise CommandError(f"nobody signs in by the name “{username}”.")
    return user
