"""References and names: tidied, and told apart by what is seen of them."""

from __future__ import annotations

import unittest

from northstride.record.naming import fold, looks, tidy


class Naming(unittest.TestCase):
    def test_what_nobody_sees_goes(self) -> None:
        for written, kept in (
            ("  T-1\u00a0", "T-1"),
            ("T\u200b-\u20601\ufeff", "T-1"),
            ("T-1\u202e", "T-1"),
            ("Ｔ－１", "T-1"),
            ("Ilse\nVarga", "Ilse Varga"),
            ("Ilse \t  Varga\r\n", "Ilse Varga"),
            ("A\u030ase", "Åse"),
            ("\x07T-1", "T-1"),
        ):
            with self.subTest(ascii(written)):
                self.assertEqual(tidy(written), kept)

    def test_names_of_every_script_stay(self) -> None:
        for name in ("Åse Þórunn", "王芳", "O'Neill", "דוד לוי", "محمد", "Nguyễn Thị", "Jean-Luc"):
            self.assertEqual(tidy(name), name)

    def test_case_is_no_difference(self) -> None:
        self.assertEqual(fold("ns-014"), fold("NS-014"))
        self.assertEqual(fold("Straße 1"), fold("STRASSE 1"))
        self.assertNotEqual(fold("NS-014"), fold("NS-041"))

    def test_what_looks_alike_is_alike(self) -> None:
        # Cyrillic letters, a capital I and a one, a zero and an O, an en dash.
        for other in ("ТА-10", "TA-I0", "TA-1O", "TA–10"):
            with self.subTest(ascii(other)):
                self.assertEqual(looks(other), looks("TA-10"))
        for other in ("TA-18", "TB-10", "TA-6", "AT-10", "TA-01"):
            self.assertNotEqual(looks(other), looks("TA-10"), other)
