"""People from files: vCards old and new, CSV from several programs, and what is no file of people."""

from __future__ import annotations

import pytest

from rain_porch.core.errors import Refused
from rain_porch.records.contacts import read_people

CARDS = """BEGIN:VCARD\r
VERSION:3.0\r
N:Carrow;Wilma;;;\r
FN:Wilma Carrow\r
EMAIL;TYPE=HOME:wilma@carrow.example\r
TEL:+1 555 0101\r
item1.ADR;TYPE=HOME:;;14 Ferry Lane;Brindle Ferry;;00001;\r
NOTE:Likes a call\\, not a letter\\; in the\r
  evening\r
END:VCARD\r
BEGIN:VCARD\r
VERSION:2.1\r
N:Grayle;Orla\r
EMAIL:orla at home\r
END:VCARD\r
BEGIN:VCARD\r
VERSION:4.0\r
N:Vale;Perrin;;;\r
EMAIL:mailto:perrin@vale.example\r
END:VCARD\r
"""


def test_vcards_give_name_address_and_note_and_tell_what_they_leave():
    found = read_people(CARDS.encode())
    wilma, perrin = found.people
    assert wilma == {
        "name": "Wilma Carrow", "email": "wilma@carrow.example", "phone": "+1 555 0101",
        "address": "14 Ferry Lane, Brindle Ferry, 00001", "note": "Likes a call, not a letter; in the evening",
    }  # fmt: skip
    assert perrin == {"name": "Perrin Vale", "email": "perrin@vale.example"}
    assert found.left == ["2, Orla Grayle: “orla at home” is no e-mail address."]


@pytest.mark.parametrize(
    "text",
    [
        "Name,E-mail,Phone\nWilma Carrow,wilma@carrow.example,555\n",
        "First name;Last name;Email address\nWilma;Carrow;wilma@carrow.example\n\n",
        "email\tname\tnotes\nwilma@carrow.example\tWilma Carrow\tx\n",
    ],
)
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252"])
def test_csv_in_the_usual_forms(text, encoding):
    (one,) = read_people(text.replace("Carrow", "Carrów").encode(encoding)).people
    assert (one["name"] == "Wilma Carrów" and one["email"] == "wilma@carrów.example".replace("ó", "o")) or "@" in one[
        "email"
    ]


@pytest.mark.parametrize("data", [b"\x81\x8d\x8f\x90\x9d", b"", b"a,b\n1,2\n", b"\x00" * 100])
def test_what_names_nobody_is_refused(data):
    with pytest.raises(Refused):
        read_people(data)
