"""What counts as the same answer under one id."""

from __future__ import annotations

import unittest

from northstride.store.answers.same_answer import same


class Same(unittest.TestCase):
    def test_yes_is_not_one_and_no_is_not_nought(self) -> None:
        pairs: tuple[tuple[object, object], ...] = (
            (True, 1),
            (False, 0),
            (1, True),
            ([True], [1]),
            ({"at": True}, {"at": 1}),
        )
        for one, other in pairs:
            self.assertFalse(same(one, other), (one, other))

    def test_nothing_is_not_no(self) -> None:
        others: tuple[object, ...] = (False, 0, "", [])
        for other in others:
            self.assertFalse(same(None, other), other)

    def test_a_number_is_the_same_however_it_is_written(self) -> None:
        self.assertTrue(same(8, 8.0))
        self.assertTrue(same({"b": 1, "a": [2]}, {"a": [2], "b": 1}))
        self.assertTrue(same(None, None))
