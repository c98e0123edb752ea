"""Colours of conductors by letters."""

# letter codes of colours (IEC 60757), and those that North American diagrams print
CODES: dict[str, str] = {
    **{"bk": "black", "bn": "brown", "rd": "red", "og": "orange", "ye": "yellow", "gn": "green"},
    **{"bu": "blue", "vt": "violet", "gy": "grey", "wh": "white", "pk": "pink", "tq": "turquoise"},
    **{"blk": "black", "brn": "brown", "yel": "yellow"},
    **dict.fromkeys(("or", "orn", "org"), "orange"),
    **{"grn": "green", "blu": "blue", "vio": "violet", "pur": "purple", "gry": "grey"},
    **{"wht": "white", "pnk": "pink", "gnye": "green/yellow", "yegn": "yellow/green"},
}
