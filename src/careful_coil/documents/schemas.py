"""The JSON Schemas of all documents, as text to be written into docs/formats."""

import json
from pathlib import Path

from pydantic import BaseModel

from careful_coil.documents.base import Done, Refusal
from careful_coil.documents.connection import ConnectionDocument
from careful_coil.documents.findings import FindingsDocument
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


def schema_texts() -> dict[str, str]:
    """Return file name and text of every schema."""
    return {
        f"{name}.schema.json": json.dumps(model.model_json_schema(), indent=1, ensure_ascii=False)
        + "\n"
        for name, model in MODELS.items()
    }


def write_schemas(folder: Path) -> None:
    """Write all schemas into a folder."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in schema_texts().items():
        (folder / name).write_text(text, encoding="utf-8")


if __name__ == "__main__":
    write_schemas(Path("docs/formats"))
