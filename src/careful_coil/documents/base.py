"""Reading a document: text to JSON to model, every fault told in one line."""

import json
import re
from typing import Any, Literal, NoReturn, TypeVar

from pydantic import BaseModel, ConfigDict, ValidationError

from careful_coil.core.errors import BadDocument

_HALF = re.compile("[\ud800-\udfff]")
LARGEST_TEXT = 32 * 1024 * 1024
MOST_LIST, MOST_NODES, MOST_DIGITS = 20_000, 2_000_000, 40
M = TypeVar("M", bound=BaseModel)


class Document(BaseModel):
    """A document with its format and version; unknown keys are ignored unless a model keeps them."""

    model_config = ConfigDict(frozen=True, extra="ignore", defer_build=True)


def parse_json(text: str) -> dict[str, Any]:
    """Return the object a text holds. Raises: BadDocument."""
    if len(text) > LARGEST_TEXT:
        raise BadDocument("document", f"{len(text)} characters", f"at most {LARGEST_TEXT}")

    def refuse(word: str) -> NoReturn:
        raise BadDocument("document", word, "a finite number")

    def whole(digits: str) -> int:
        if len(digits) > MOST_DIGITS:
            raise BadDocument(
                "document", f"a number of {len(digits)} digits", f"at most {MOST_DIGITS}"
            )
        return int(digits)

    try:
        found = json.loads(text.removeprefix("\ufeff"), parse_constant=refuse, parse_int=whole)
    except json.JSONDecodeError as error:
        raise BadDocument(
            f"line {error.lineno}, column {error.colno}", error.msg, "a JSON document"
        ) from None
    except RecursionError:
        raise BadDocument("document", "brackets nested too deep", "a JSON document") from None
    if not isinstance(found, dict):
        raise BadDocument("document", type(found).__name__, "a JSON object")
    _weigh(found)
    return found


def _weigh(found: Any) -> None:
    """Refuse what is small as text and costs much once it is read. Raises: BadDocument."""
    stack, nodes = [found], 0
    while stack:
        here = stack.pop()
        nodes += 1
        if isinstance(here, dict | list):
            if len(here) > MOST_LIST:
                raise BadDocument(
                    "document", f"a list of {len(here)}", f"at most {MOST_LIST} in a list"
                )
            stack.extend(here.values() if isinstance(here, dict) else here)
        elif isinstance(here, str) and _HALF.search(here):
            raise BadDocument(
                "document", ascii(here[:20]), "text: a half of a character stands alone"
            )
        if nodes + len(stack) > MOST_NODES:
            raise BadDocument("document", f"more than {MOST_NODES} values", "a document of one job")


def check_format(found: dict[str, Any], name: str, version: int = 1) -> None:
    """Refuse another format or version with what was read."""
    if found.get("format") != name:
        raise BadDocument("format", repr(found.get("format")), name)
    if found.get("version") != version or isinstance(found.get("version"), bool):
        raise BadDocument("version", repr(found.get("version")), f"version {version} of {name}")


def read_model(model: type[M], found: dict[str, Any]) -> M:
    """Return the model of a checked object. Raises: BadDocument naming the first wrong place."""
    try:
        return model.model_validate(found)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(p) for p in first["loc"]) or "document"
        read = "nothing" if first["type"] == "missing" else repr(first.get("input"))
        raise BadDocument(where, read, _wanted(first["msg"])) from None


def _wanted(message: str) -> str:
    return message[0].lower() + message[1:] if message else "what the format says"


def compact(document: BaseModel) -> str:
    """Return a document as one line of JSON."""
    return json.dumps(
        document.model_dump(mode="json", exclude_none=False), ensure_ascii=False, sort_keys=False
    )


class Refusal(Document):
    """What a stream answers to a line it cannot take."""

    format: Literal["careful-coil/refusal"] = "careful-coil/refusal"
    version: Literal[1] = 1
    message: str


class Done(Document):
    """What a verb that writes a file answers."""

    format: Literal["careful-coil/done"] = "careful-coil/done"
    version: Literal[1] = 1
    verb: str
    file: str
