import json

from django.conf import settings
from django.test import SimpleTestCase

from server.api import api


class Snapshot(SimpleTestCase):
    def test_the_openapi_snapshot_is_current(self):
        """Refresh it with: ./crelda generate."""
        kept = json.loads((settings.ROOT / "web" / "openapi.json").read_text())
        self.assertEqual(kept, json.loads(json.dumps(api.get_openapi_schema(), default=str)))
