"""What a room's split is made of: sums over harmonics against plain convolution in time."""

import unittest

import numpy as np

from pendrum_core.room.balance.harmonics import to_harmonics
from pendrum_core.room.days.products import summed_products
from pendrum_core.room.days.terms import FIXED, Ensemble, Terms, TermStack, fixed_split

RANDOM = np.random.default_rng(7)
MONTHS = 3


def response() -> np.ndarray:
    """The answer of something to an impulse, over the steps that follow (144,)."""
    return RANDOM.normal(size=144) * np.exp(-np.arange(144) / 20.0)


def convolved(answer: np.ndarray, course: np.ndarray) -> np.ndarray:
    """Periodic convolution written out: each step's input with what is left of its answer at every later one."""
    result = np.zeros(144)
    for begin in range(144):
        result += course[begin] * np.roll(answer, begin)
    return result


class SumsOfTerms(unittest.TestCase):
    def setUp(self) -> None:
        self.answers = [response() for _ in range(5)]
        self.courses = [RANDOM.normal(size=(MONTHS, 144)) for _ in range(3)]
        self.direct = RANDOM.normal(size=(MONTHS, 144))
        signals = [to_harmonics(course) for course in self.courses]
        # Room, category, answer and course of each transfer; rooms share courses.
        self.drawn = [(0, 0, 0, 0), (0, 1, 1, 1), (0, 1, 2, 2), (2, 4, 3, 1), (2, 8, 4, 0)]
        self.steady = RANDOM.normal(size=(3, FIXED))
        self.stack = TermStack(
            rooms=3,
            room=np.array([r for r, *_ in self.drawn]),
            category=np.array([c for _, c, *_ in self.drawn]),
            transfer=np.stack([to_harmonics(self.answers[a]) for _, _, a, _ in self.drawn]),
            signal_of=np.array([s for *_, s in self.drawn]),
            signals=tuple(signals),
            direct_room=np.array([1, 2]),
            direct_category=np.array([7, 7]),
            direct_factor=np.array([2.5, -1.0]),
            direct_of=np.array([0, 0]),
            courses=(self.direct,),
            steady=self.steady,
        )
        self.rooms: list[Terms] = self.stack.by_room()

    def by_hand(self) -> np.ndarray:
        """(rooms, FIXED, months, 144) in the time domain."""
        split = np.repeat(self.steady[:, :, None], MONTHS * 144, axis=2).reshape(3, FIXED, MONTHS, 144).copy()
        for room, category, answer, course in self.drawn:
            for month in range(MONTHS):
                split[room, category, month] += convolved(self.answers[answer], self.courses[course][month])
        split[1, 7] += 2.5 * self.direct
        split[2, 7] -= self.direct
        return split

    def test_the_whole_and_its_parts(self) -> None:
        want = self.by_hand()
        np.testing.assert_allclose(self.stack.total(), want.sum(axis=1), atol=1e-10)
        for room in range(3):
            np.testing.assert_allclose(fixed_split(self.rooms[room], MONTHS), want[room], atol=1e-10)

    def test_days_and_steps_of_a_month_for_each_room(self) -> None:
        want, month = self.by_hand(), np.array([2, 0, 1])
        ensemble = Ensemble(self.rooms)
        days = ensemble.days(month)
        for step in (0, 71, 143):
            at = ensemble.at(month, np.array([step, 5, step]))
            for room in range(3):
                np.testing.assert_allclose(days[room], want[room, :, month[room]], atol=1e-10)
                when = 5 if room == 1 else step
                np.testing.assert_allclose(at[room], want[room, :, month[room], when], atol=1e-10)

    def test_some_rooms_of_many(self) -> None:
        want = self.by_hand()
        found = Ensemble(self.rooms).at(np.array([1, 1]), np.array([90, 90]), np.array([0, 2]))
        np.testing.assert_allclose(found, want[[0, 2], :, 1, 90], atol=1e-10)
        only = Ensemble(self.rooms).at(np.array([0]), np.array([3]), np.array([1]))
        np.testing.assert_allclose(only[0], want[1, :, 0, 3], atol=1e-10)

    def test_rooms_keep_no_more_than_their_own(self) -> None:
        self.assertEqual([len(room.category) for room in self.rooms], [3, 0, 2])
        self.assertTrue(all(room.transfer.base is None for room in self.rooms))
        self.assertIs(self.rooms[0].signals[1], self.rooms[2].signals[0])

    def test_products_add_into_their_rows(self) -> None:
        transfer = RANDOM.normal(size=(4, 73)) + 1j * RANDOM.normal(size=(4, 73))
        signals = RANDOM.normal(size=(2, MONTHS, 73)) + 1j * RANDOM.normal(size=(2, MONTHS, 73))
        to, of = np.array([1, 0, 1, 1]), np.array([0, 1, 1, 0])
        want = np.zeros((2, MONTHS, 73), dtype=complex)
        for term in range(4):
            want[to[term]] += transfer[term] * signals[of[term]]
        np.testing.assert_allclose(summed_products(to, of, transfer, signals, 2), want, atol=1e-12)
