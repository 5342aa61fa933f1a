"""A small writer of SVG drawings in millimetres, y upwards as the core has it: for paper, or live for the screen.

A live drawing takes the colours of the page, says of its parts which reading each leads to (`data-pick`) and which readings light
it (`data-lit`), and holds its sizes in both unit families; on paper nothing of that is written.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from html import escape

from tabrel.core.catalogue.units import UnitFamily
from tabrel.report.figures.palette import PRINT, SCREEN

Point = tuple[float, float]
Style = str | float | None

FONT = "IBM Plex Sans, DejaVu Sans, sans-serif"


def _number(value: float, digits: int = 3) -> str:
    return f"{value:.{digits}f}".rstrip("0").rstrip(".") or "0"


def path_of(points: Iterable[Point], *, closed: bool = True, digits: int = 3) -> str:
    """Return points as the d of a path; y is turned over.

    Examples
    --------
    >>> path_of([(0, 0), (1, 0), (1, 2.5)])
    'M0 0L1 0L1 -2.5Z'
    """
    d = "L".join(f"{_number(x, digits)} {_number(-y, digits)}" for x, y in points)
    return "M" + d.replace("-0 ", "0 ") + ("Z" if closed else "")


def arc_circle(radius: float) -> str:
    """Return a circle round the origin as the d of a path, so that two of them make a ring."""
    r = _number(radius)
    return f"M{r} 0A{r} {r} 0 1 0 -{r} 0A{r} {r} 0 1 0 {r} 0Z"


class Drawing:
    """A drawing that holds a box of millimetres; elements are painted in the order they are added.

    Parameters
    ----------
    left, bottom, right, top : float
        What it must hold. [mm]
    title : str
        Its text alternative.
    name : str
        Of a live drawing, apart from others of the page; empty for one on paper.
    """

    def __init__(self, left: float, bottom: float, right: float, top: float, title: str, *, name: str = "") -> None:
        self.box = (left, bottom, right, top)
        self.title = title
        self.name = name
        self.inks = SCREEN if name else PRINT
        self.line = max(right - left, top - bottom) / 300
        """A fine line, and the measure of arrows and letters. [mm]"""
        self._defs: list[str] = []
        self._body: list[str] = []
        self._is_size = False  # the page gives a size in hand its ink

    @property
    def width(self) -> float:
        """Of the box. [mm]"""
        return self.box[2] - self.box[0]

    @property
    def height(self) -> float:
        """Of the box. [mm]"""
        return self.box[3] - self.box[1]

    def hatch(self, name: str, ink: str, ground: str, turn: float = 45.0, pitch: float = 3.2) -> str:
        """Define a hatch and return the fill that uses it."""
        step, name = pitch * self.line, f"{self.name}-{name}" if self.name else name
        self._defs.append(
            f'<pattern id="{name}" width="{_number(step)}" height="{_number(step)}" patternUnits="userSpaceOnUse" '
            f'patternTransform="rotate({_number(turn)})"><rect width="{_number(step)}" height="{_number(step)}" fill="{ground}"/>'
            f'<path d="M0 0V{_number(step)}" stroke="{ink}" stroke-width="{_number(0.9 * self.line)}"/></pattern>'
        )
        return f"url(#{name})"

    def d(self, *lines: Iterable[Point], closed: bool = True) -> str:
        """Return lines as the d of one path: a live drawing, which is sent, has hundredths."""
        return "".join(path_of(line, closed=closed, digits=2 if self.name else 3) for line in lines)

    def add(self, element: str, **style: Style) -> None:
        """Add an element by its name and attributes (underscores for hyphens); None leaves one out."""
        attributes = "".join(
            f' {key.rstrip("_").replace("_", "-")}="{escape(_number(value) if isinstance(value, float | int) else value)}"'
            for key, value in style.items()
            if value is not None
        )
        self._body.append(f"<{element}{attributes}/>")

    def path(self, d: str, **style: Style) -> None:
        """Add a path."""
        self.add("path", d=d, **{"fill": "none", **style})

    def circle(self, centre: Point, radius: float, **style: Style) -> None:
        """Add a circle."""
        self.add("circle", cx=centre[0], cy=-centre[1], r=radius, **{"fill": "none", **style})

    @contextmanager
    def part(self, key: str = "", *, lit: Iterable[str] = (), title: str = "", **marks: str) -> Iterator[None]:
        """Mark what is added meanwhile, on screen: the reading it leads to, those that light it, and what it is."""
        if self.name:
            self._is_size = "size" in marks
            marks |= {"pick": key, "lit": " ".join(lit)}
            self._body.append("<g" + "".join(f' data-{name}="{escape(value)}"' for name, value in marks.items() if value) + ">")
            self._body.append(f"<title>{escape(title)}</title>" if title else "")
        yield
        if self.name:
            self._is_size = False
            self._body.append("</g>")

    def text(
        self,
        at: Point,
        words: str | Mapping[UnitFamily, str],
        *,
        size: float,
        ink: str,
        anchor: str = "middle",
        weight: int = 400,
        turn: float = 0.0,
    ) -> None:
        """Add words, or those of each unit family; `size` in fine lines, `turn` in degrees."""
        x, y, height = _number(at[0]), _number(-at[1]), _number(size * self.line)
        turned = f' transform="rotate({_number(turn)} {x} {y})"' if turn else ""
        if isinstance(words, Mapping):
            held = "".join(f'<tspan data-family="{family}">{escape(said)}</tspan>' for family, said in words.items())
        else:
            held = escape(words)
        font = "" if self.name else f' font-family="{FONT}"'
        look = f' font-size="{height}"' if self._is_size else f'{font} font-size="{height}" font-weight="{weight}" fill="{ink}"'
        self._body.append(f'<text x="{x}" y="{y}"{look} text-anchor="{anchor}"{turned}>{held}</text>')

    def arrow(self, start: Point, end: Point, *, ink: str, width: float = 1.0, both: bool = True) -> None:
        """Add a dimension line with filled tips."""
        shaft = self.d([start, end], closed=False)
        length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
        tips: list[str] = []
        for at, way in ((end, 1.0), (start, -1.0))[: (1 + both) * (length > 0)]:
            along = ((end[0] - start[0]) / length, (end[1] - start[1]) / length)
            tip = min(6 * self.line, length / 3)
            back = (at[0] - way * tip * along[0], at[1] - way * tip * along[1])
            across = (-along[1] * tip / 3, along[0] * tip / 3)
            tips.append(self.d([at, (back[0] + across[0], back[1] + across[1]), (back[0] - across[0], back[1] - across[1])]))
        if self.name:
            look: dict[str, Style] = {"fill": ink, "stroke": ink, "stroke_width": width * self.line}
            self.add("path", d="".join((shaft, *tips)), **({} if self._is_size else look))
            return
        self.path(shaft, stroke=ink, stroke_width=width * self.line)
        for d in tips:
            self.path(d, fill=ink)

    def dots(self, centres: Iterable[Point], radius: float, **style: Style) -> None:
        """Add equal circles as one path."""
        r, wide = _number(radius), _number(2 * radius)
        arcs = (f"{self.d([(x - radius, y)], closed=False)}a{r} {r} 0 1 0 {wide} 0a{r} {r} 0 1 0 -{wide} 0Z" for x, y in centres)
        self.path("".join(arcs), **style)

    def balloon(self, at: Point, words: str, *, ink: str) -> None:
        """Add a number in a circle."""
        self.circle(at, 7.5 * self.line, fill=self.inks.paper, stroke=ink, stroke_width=self.line)
        self.text((at[0], at[1] - 3.4 * self.line), words, size=9.5, ink=ink, weight=600)

    def svg(self) -> str:
        """Return the drawing as SVG text."""
        left, _, _, top = self.box
        view = f'viewBox="{_number(left)} {_number(-top)} {_number(self.width)} {_number(self.height)}"'
        held = f"<defs>{''.join(self._defs)}</defs>{''.join(self._body)}</svg>"
        if self.name:
            svg = f'<svg {view} role="img" aria-label="{escape(self.title)}" data-line="{_number(self.line)}">{held}'
            return svg.replace('"', "'")  # which JSON need not escape
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" {view} width="{_number(self.width)}mm" '
            f'height="{_number(self.height)}mm" role="img"><title>{escape(self.title)}</title>{held}'
        )
