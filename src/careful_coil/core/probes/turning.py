"""How it turned, as people type it."""

TURNS = ("smooth", "rough", "none")
SAID = {  # other words for them
    "quiet": "smooth",
    **dict.fromkeys(("noisy", "loud", "uneven", "harsh", "vibrates"), "rough"),
    **dict.fromkeys(("stands", "stalls", "stalled"), "none"),
}
LEAST = 2  # letters that name a word by its beginning: s alone is seconds


def turning(word: str) -> str:
    """Return smooth, rough or none for a word, its beginning (sm, ro, no) or another for it; else nothing."""
    told = word.lower().rstrip(".,")
    return SAID.get(told) or next(
        (t for t in TURNS if len(told) >= LEAST and t.startswith(told)), ""
    )
