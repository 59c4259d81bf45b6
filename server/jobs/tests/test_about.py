import os
import subprocess
import sys
from base64 import b64encode
from datetime import timedelta
from io import BytesIO
from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings
from django.test import override_settings
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from server.accounts.models import Membership
from server.body_size import KB
from server.jobs.models import RunPhoto
from server.jobs.photo_store import LEFT_ALONE, tidy_files
from server.jobs.photos import LARGEST_PHOTO, LONGEST_SIDE, MOST_PHOTOS
from server.settings import files_in
from server.tests.support import Api, CrewTestCase, environment

# Megabytes that a process grows by while it sizes down ten pictures at once.
MANY_AT_ONCE = """
import resource, sys, django
from concurrent.futures import ThreadPoolExecutor
django.setup()
from server.jobs.photos import sized_down
image = sys.stdin.read()
used = lambda: resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024
before = used()
with ThreadPoolExecutor(10) as crowd:
    list(crowd.map(sized_down, [image] * 10))
print(used() - before)
"""


def encoded(width=40, height=30, kind="JPEG", **more):
    """A photo as it is sent."""
    written = BytesIO()
    Image.new("RGB", (width, height), "teal").save(written, kind, **more)
    return b64encode(written.getvalue()).decode()


class AboutARun(CrewTestCase):
    def run_now(self):
        return self.api.send("GET", f"/runs/{self.feed.pk}").json()

    def write(self, note, was, user=None):
        body = {"note": note, "was": was}
        return Api(user or self.lead).send("PUT", f"/runs/{self.feed.pk}/note", body)

    def test_a_note_is_kept_and_not_written_over_unseen(self):
        self.assertEqual(self.write("Ladder is at Dana's", "").json()["note"], "Ladder is at Dana's")
        refused = self.write("Core drill first", "", self.bender)
        self.assertEqual((refused.status_code, refused.json()["theirs"]), (409, "Ladder is at Dana's"))
        self.assertEqual(self.write("Core drill first", "Ladder is at Dana's", self.bender).status_code, 200)
        self.assertEqual(self.write("Core drill first", "").status_code, 200, "the same again is no conflict")
        self.assertEqual(self.write("x" * 2001, "").status_code, 422)
        line = self.api.send("GET", "/jobs").json()[0]["runs"][0]
        self.assertEqual((line["note"], line["photos"], line["assigned"]), ("Core drill first", 0, None))
        self.assertEqual(self.run_now()["version"], 1, "what was measured is as it was")

    def test_a_run_is_for_somebody_of_the_crew(self):
        ben = Membership.objects.get(user=self.bender)
        told = self.api.send("PUT", f"/runs/{self.feed.pk}/assigned", {"member_id": ben.pk}).json()["assigned"]
        self.assertEqual(told, {"id": self.bender.pk, "name": "ben"})
        self.assertEqual(self.api.send("GET", "/jobs").json()[0]["runs"][0]["assigned"], told)
        stan = Membership.objects.get(user=self.stranger)
        refused = self.api.send("PUT", f"/runs/{self.feed.pk}/assigned", {"member_id": stan.pk})
        self.assertEqual(refused.status_code, 422)
        self.assertEqual(self.run_now()["assigned"], told)
        self.api.send("PUT", f"/runs/{self.feed.pk}/assigned", {"member_id": None})
        self.assertIsNone(self.run_now()["assigned"])

    def test_a_job_is_put_aside_and_back(self):
        for aside in (True, True, False):
            job = self.api.send("PUT", f"/jobs/{self.job.pk}/aside", {"aside": aside}).json()
            self.assertEqual((bool(job["archived_at"]), len(job["runs"])), (aside, 1))

    def add(self, image, **more):
        return self.api.send("POST", f"/runs/{self.feed.pk}/photos", {"image": image, **more})

    def test_a_photo_is_sized_down_and_carries_nothing_but_the_picture(self):
        camera = Image.Exif()
        camera[0x010F], camera[0x0112] = "A camera", 6
        (photo,) = self.add(encoded(4000, 1000, exif=camera), says="Where it leaves the panel").json()["photos"]
        self.assertEqual((photo["width"], photo["height"]), (LONGEST_SIDE // 4, LONGEST_SIDE), "it stands upright")
        self.assertEqual((photo["says"], photo["by"]), ("Where it leaves the panel", "lena"))
        answer = self.api.send("GET", f"/runs/{self.feed.pk}/photos/{photo['id']}")
        self.assertEqual(answer["Content-Type"], "image/jpeg")
        with Image.open(BytesIO(answer.content)) as kept:
            self.assertEqual((kept.size, dict(kept.getexif())), ((400, 1600), {}))
        self.assertEqual(self.api.send("GET", "/jobs").json()[0]["runs"][0]["photos"], 1)
        self.assertEqual(self.api.send("DELETE", f"/runs/{self.feed.pk}/photos/{photo['id']}").status_code, 204)
        self.assertFalse(RunPhoto.objects.exists())

    def test_neither_comments_nor_texts_of_a_file_are_kept(self):
        text = PngInfo()
        text.add_text("Comment", "behind the church")
        text.add_itxt("XML:com.adobe.xmp", "<where>behind the church</where>")
        for image in (encoded(comment=b"behind the church"), encoded(kind="PNG", pnginfo=text)):
            photo = self.add(image).json()["photos"][-1]["id"]
            kept = self.api.send("GET", f"/runs/{self.feed.pk}/photos/{photo}").content
            self.assertNotIn(b"church", kept)

    def test_as_large_a_file_as_is_promised_is_taken(self):
        noise = Image.effect_noise((2000, 2000), 90)
        written = BytesIO()
        noise.save(written, "JPEG", quality=55)
        self.assertGreater(written.tell(), 1200 * KB)
        self.assertEqual(self.add(b64encode(written.getvalue()).decode()).status_code, 201)
        refused = self.add("A" * (LARGEST_PHOTO * 4 // 3 + 8))
        self.assertIn(refused.status_code, (413, 422))

    def test_many_large_pictures_at_once_take_the_room_of_one(self):
        for kind, more in (("JPEG", {"progressive": True}), ("PNG", {})):
            with self.subTest(kind):
                image = encoded(6000, 3900, kind, **more)
                grown = subprocess.run(
                    [sys.executable, "-c", MANY_AT_ONCE], env=environment(), input=image, capture_output=True, text=True
                )
                self.assertEqual(grown.stderr, "")
                self.assertLess(int(grown.stdout), 300, "megabytes")

    def test_by_setting_photos_lie_in_a_folder_and_those_from_before_stay(self):
        photos = f"/runs/{self.feed.pk}/photos"
        before = self.api.send("POST", photos, {"image": encoded()}).json()["photos"][-1]["id"]
        with (
            TemporaryDirectory() as folder,
            override_settings(STORAGES={**settings.STORAGES, "photos": files_in(folder)}),
        ):
            now = self.api.send("POST", photos, {"image": encoded(60, 20)}).json()["photos"][-1]["id"]
            files = [path for path in Path(folder).rglob("*") if path.is_file()]
            self.assertEqual([path.stat().st_mode & 0o777 for path in files], [0o600])
            self.assertEqual(bytes(RunPhoto.objects.get(pk=now).data), b"")
            for photo, size in ((before, (40, 30)), (now, (60, 20))):
                shown = self.api.send("GET", f"{photos}/{photo}").content
                self.assertEqual(Image.open(BytesIO(shown)).size, size)
            stray = Path(folder) / "1" / "stray.jpg"
            stray.parent.mkdir(exist_ok=True)
            stray.write_bytes(b"of a write that failed")
            self.assertEqual(tidy_files(), 0, "it may be under way")
            old = stray.stat().st_mtime - 2 * LEFT_ALONE / timedelta(seconds=1)
            for path in (stray, *files):
                os.utime(path, (old, old))
            self.assertEqual(tidy_files(), 1)
            with self.captureOnCommitCallbacks(execute=True):
                self.api.send("DELETE", f"{photos}/{now}")
            self.assertEqual([path for path in Path(folder).rglob("*") if path.is_file()], [])
            self.assertEqual(self.api.send("GET", f"{photos}/{before}").status_code, 200)

    def test_what_is_no_photo_or_too_much_is_refused(self):
        bomb = encoded(9000, 9000, "PNG")
        for image in ("no base64!", b64encode(b"text").decode(), encoded(kind="GIF"), encoded()[:40], bomb):
            self.assertEqual(self.add(image).status_code, 422)
        for _ in range(MOST_PHOTOS):
            self.assertEqual(self.add(encoded(kind="PNG")).status_code, 201)
        self.assertIn("Delete one first", self.add(encoded()).json()["detail"])

    def test_only_the_crew_sees_it_and_who_may_work_changes_it(self):
        photo = self.add(encoded()).json()["photos"][0]["id"]
        stranger, viewer = Api(self.stranger), Api(self.viewer)
        self.assertEqual(stranger.send("GET", f"/runs/{self.feed.pk}/photos/{photo}").status_code, 404)
        self.assertEqual(viewer.send("GET", f"/runs/{self.feed.pk}/photos/{photo}").status_code, 200)
        for path, body in (
            (f"/runs/{self.feed.pk}/note", {"note": "x", "was": ""}),
            (f"/runs/{self.feed.pk}/assigned", {"member_id": None}),
            (f"/jobs/{self.job.pk}/aside", {"aside": True}),
        ):
            self.assertEqual(stranger.send("PUT", path, body).status_code, 404)
            self.assertEqual(viewer.send("PUT", path, body).status_code, 403)
