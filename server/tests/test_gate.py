"""One person's requests, however many and slow, leave places for others."""

from concurrent.futures import ThreadPoolExecutor
from threading import Event
from unittest import TestCase

from server.gate import Places


class PlacesInUse(TestCase):
    def test_one_person_never_has_all_places(self):
        places = Places(6)
        self.assertEqual([places.enter("dana") for _ in range(4)], [True] * 4)
        self.assertFalse(places.enter("dana"), "her next waits, and nothing gets done meanwhile")
        self.assertTrue(places.enter("marek"))
        places.leave("dana")
        self.assertTrue(places.enter("dana"))

    def test_when_all_are_taken_one_waits_as_long_as_others_leave(self):
        places, done = Places(2), Event()
        for who in ("dana", "marek"):
            self.assertTrue(places.enter(who))
        with ThreadPoolExecutor(1) as pool:
            waiting = pool.submit(places.enter, "ivy")
            done.wait(0.2)
            self.assertFalse(waiting.done())
            places.leave("dana")
            self.assertTrue(waiting.result())
        for who in ("marek", "ivy"):
            places.leave(who)
        self.assertEqual((places.free, dict(places.held)), (2, {}))
