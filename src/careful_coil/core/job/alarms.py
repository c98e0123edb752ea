"""Words of a run that are an alarm: smoke, a burnt smell, a trip, sparks at the box; what is denied is none."""

import re

NOT = ("no", "not", "without", "never", "nothing")
ARTICLES = ("a", "an", "the", "any", "more")
# how words begin that say that winding or joints may be hurt, or that it switched itself off
HARM = re.compile(
    r"smok|burn|scorch|charr|flames?$|fire$|arc(s|ed|ing)?$|flash|bang|trip|fuse|melt|blew|blown"
)
# words that hold a run though nothing need be hurt
ROUGH = re.compile(
    r"rough|vibrat|scrap|rub(s|bed|bing)?$|grind|growl|rumbl|shak|knock|stall|lost$|jerk|surg"
)
AT_JOINTS = re.compile(r"\b(box|leads?|terminals?|joints?|windings?|bell|shield|frame)\b")


def spoken(text: str) -> list[str]:
    """Return words in small letters, without those that are denied."""
    kept: list[str] = []
    denied = 0
    before = ""
    for word in re.findall(r"[^\W_]+|[,.;:!]", text.lower()):
        if word in ARTICLES:
            continue
        if word in NOT:
            denied = 1
        elif word in ("or", "nor") and before == "denied":
            denied = 2
            continue
        elif not word[0].isalnum():
            denied, word = 0, ""
        elif denied:
            denied, before = denied - 1, "denied"
            continue
        elif word:
            kept.append(word)
        before = word
    return kept


def words_of_harm(text: str) -> tuple[str, ...]:
    """Return the words of a text that say that something was hurt or switched itself off."""
    words = spoken(text)
    sparks = [w for w in words if w.startswith("spark")]
    found = [w for w in words if HARM.match(w)]
    return tuple(found + (sparks if AT_JOINTS.search(text.lower()) else []))


def words_of_roughness(text: str) -> tuple[str, ...]:
    """Return the words of a text that say that it did not run well."""
    return tuple(w for w in spoken(text) if ROUGH.match(w))
