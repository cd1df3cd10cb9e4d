"""The words on the pages of a PDF, as they are read by people: one space between words."""

from __future__ import annotations

from pathlib import Path

import pypdfium2


def words_on_pages(pdf: bytes | Path | str) -> list[str]:
    """The words of each page of a PDF, or of one in a file."""
    document = pypdfium2.PdfDocument(pdf)
    try:
        return [" ".join(page.get_textpage().get_text_bounded().split()) for page in document]
    finally:
        document.close()
