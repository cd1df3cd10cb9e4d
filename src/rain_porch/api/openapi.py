"""Print the OpenAPI document, from which the front end's types are generated."""

import json
import tempfile
from pathlib import Path

from .app import create_app

if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(create_app(Path(folder)).openapi(), indent=1))
