"""How the command line answers: as JSON where asked, else as text for people."""

from __future__ import annotations

import argparse
import json
from typing import Any

from pydantic import BaseModel


def show(args: argparse.Namespace, document: Any, text: str) -> int:
    """Print the document as JSON where asked, else the text for people."""
    if args.json:
        data = document.model_dump(mode="json") if isinstance(document, BaseModel) else document
        print(json.dumps(data, ensure_ascii=False, indent=2, allow_nan=False))
    else:
        print(text)
    return 0
