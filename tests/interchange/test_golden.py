"""Sheets against those that were agreed on, by their words and by their pictures."""

from __future__ import annotations

import unittest

from PIL import Image, ImageDraw

from tests.support.golden import EXAMPLES, KINDS, differs, kept, made, picture_of, words_of

# Of 255: what another build of a font or of a picture's edges moves, and no word or drawing does.
MOST_APART = 10


class Golden(unittest.TestCase):
    def test_words_and_pictures_are_those_that_were_agreed_on(self) -> None:
        for example in EXAMPLES:
            for kind in KINDS:
                with self.subTest(example, kind=kind):
                    pdf = made(example, kind)
                    words, picture = kept(example, kind)
                    self.assertEqual(words_of(pdf), words)
                    self.assertLess(differs(picture_of(pdf), picture.convert("L")), MOST_APART)

    def test_a_figure_or_a_word_that_is_gone_or_moved_would_be_seen(self) -> None:
        whole = picture_of(made("stiff-ankle-first", "report"))
        width, height = whole.size
        without = whole.copy()
        box = (width * 0.28, height * 0.2, width * 0.42, height * 0.3)
        ImageDraw.Draw(without).rectangle(box, fill=255)
        self.assertGreater(differs(whole, without), MOST_APART)
        moved = Image.new("L", whole.size, 255)
        moved.paste(whole, (0, 4))
        self.assertGreater(differs(whole, moved), MOST_APART)
