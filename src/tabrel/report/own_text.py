"""The analyst's own text between the parts: Markdown without HTML, links and pictures, as blocks."""

from __future__ import annotations

from functools import lru_cache
from typing import TYPE_CHECKING

from tabrel.report.blocks import OwnBlock, OwnText, Words

if TYPE_CHECKING:
    from markdown_it import MarkdownIt
    from markdown_it.token import Token

DEEPEST_HEADING = 3


@lru_cache
def _reader() -> MarkdownIt:
    """Return a CommonMark reader; what it does not read stays as it was typed."""
    from markdown_it import MarkdownIt

    reader = MarkdownIt("commonmark", {"html": False})
    return reader.disable(
        ["image", "link", "autolink", "reference", "html_block", "html_inline", "code", "fence", "blockquote", "hr"]
    )


def own_text(markdown: str) -> OwnText:
    r"""Return text with headings, paragraphs, lists, emphasis and code as blocks; everything else is kept as typed.

    Examples
    --------
    >>> [(one.kind, one.words[0].text) for one in own_text("# Why\n\n- <b>so</b>").blocks]
    [('heading', 'Why'), ('bullet', '<b>so</b>')]
    """
    blocks: list[OwnBlock] = []
    lists: list[tuple[str, int]] = []
    heading = 0
    for token in _reader().parse(markdown):
        if token.type == "heading_open":
            heading = min(DEEPEST_HEADING, int(token.tag[1:]))
        elif token.type in ("bullet_list_open", "ordered_list_open"):
            start = token.attrGet("start")
            lists.append(
                ("number" if token.type == "ordered_list_open" else "bullet", int(start) - 1 if start is not None else 0)
            )
        elif token.type in ("bullet_list_close", "ordered_list_close"):
            lists.pop()
        elif token.type == "list_item_open":
            kind, count = lists[-1]
            lists[-1] = (kind, count + 1)
        elif token.type == "inline":
            words = tuple(_words(token.children or []))
            if heading:
                blocks.append(OwnBlock("heading", words, heading))
                heading = 0
            elif lists:
                kind, count = lists[-1]
                blocks.append(OwnBlock("number" if kind == "number" else "bullet", words, len(lists), count))
            else:
                blocks.append(OwnBlock("paragraph", words))
    return OwnText(tuple(blocks))


def _words(children: list[Token]) -> list[Words]:
    wordses: list[Words] = []
    strong = emphasised = 0
    for token in children:
        if token.type == "strong_open":
            strong += 1
        elif token.type == "strong_close":
            strong -= 1
        elif token.type == "em_open":
            emphasised += 1
        elif token.type == "em_close":
            emphasised -= 1
        elif token.type in ("softbreak", "hardbreak"):
            wordses.append(Words("\n" if token.type == "hardbreak" else " "))
        elif token.content:
            wordses.append(Words(token.content, strong > 0, emphasised > 0, token.type == "code_inline"))
    return wordses
