"""The JSON Schemas of all documents, as text to be written into docs/formats."""

import json
from pathlib import Path
from typing import Any

from pydantic import BaseModel

from careful_coil.documents.base import Done, Refusal
from careful_coil.documents.connection import ConnectionDocument
from careful_coil.documents.findings import FindingsDocument
from careful_coil.documents.format_words import explain, write_words
from careful_coil.documents.hookup import HookupCheckDocument, HookupDocument
from careful_coil.documents.identification import IdentificationDocument
from careful_coil.documents.job import JobDocument
from careful_coil.documents.motor import MotorDocument
from careful_coil.documents.readings import ReadingsDocument
from careful_coil.documents.sum import SumDocument
from careful_coil.documents.walk import WalkDocument
from careful_coil.documents.winding import WindingDocument

MODELS: dict[str, type[BaseModel]] = {
    "readings": ReadingsDocument,
    "identification": IdentificationDocument,
    "connection": ConnectionDocument,
    "hookup": HookupDocument,
    "hookup-check": HookupCheckDocument,
    "job": JobDocument,
    "findings": FindingsDocument,
    "sum": SumDocument,
    "motor": MotorDocument,
    "walk": WalkDocument,
    "winding": WindingDocument,
    "refusal": Refusal,
    "done": Done,
}


DRAFT = "https://json-schema.org/draft/2020-12/schema"  # as the models write them


def schema_of(name: str) -> dict[str, Any]:
    """Return the schema of a document, with what draft it is in and a name of its own that no host serves."""
    model = MODELS[name]
    title = f"Careful Coil: {name.replace('-', ' ')}"
    own = {"$schema": DRAFT, "$id": f"urn:careful-coil:{name}:1", **model.model_json_schema()}
    own["title"] = title
    explain(own)
    return own


def schema_texts() -> dict[str, str]:
    """Return file name and text of every schema."""
    return {
        f"{name}.schema.json": json.dumps(schema_of(name), indent=1, ensure_ascii=False) + "\n"
        for name in MODELS
    }


def write_schemas(folder: Path) -> None:
    """Write all schemas into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in schema_texts().items():
        (folder / name).write_text(text, encoding="utf-8")
    write_words(folder)


if __name__ == "__main__":
    write_schemas(Path("docs/formats"))
