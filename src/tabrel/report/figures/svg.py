"""A small writer of SVG drawings in millimetres, y upwards as the core has it."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

Point = tuple[float, float]
Style = str | float | None

FONT = "IBM Plex Sans, DejaVu Sans, sans-serif"


def _number(value: float) -> str:
    return f"{value:.3f}".rstrip("0").rstrip(".") or "0"


def path_of(points: Iterable[Point], *, closed: bool = True) -> str:
    """Return points as the d of a path; y is turned over.

    Examples
    --------
    >>> path_of([(0, 0), (1, 0), (1, 2.5)])
    'M0 0L1 0L1 -2.5Z'
    """
    return "M" + "L".join(f"{_number(x)} {_number(-y)}" for x, y in points).replace("-0 ", "0 ") + ("Z" if closed else "")


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
    """

    def __init__(self, left: float, bottom: float, right: float, top: float, title: str) -> None:
        self.box = (left, bottom, right, top)
        self.title = title
        self.line = max(right - left, top - bottom) / 300
        """A fine line, and the measure of arrows and letters. [mm]"""
        self._defs: list[str] = []
        self._body: list[str] = []

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
        step = pitch * self.line
        self._defs.append(
            f'<pattern id="{name}" width="{_number(step)}" height="{_number(step)}" patternUnits="userSpaceOnUse" '
            f'patternTransform="rotate({_number(turn)})"><rect width="{_number(step)}" height="{_number(step)}" fill="{ground}"/>'
            f'<path d="M0 0V{_number(step)}" stroke="{ink}" stroke-width="{_number(0.9 * self.line)}"/></pattern>'
        )
        return f"url(#{name})"

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

    def text(self, at: Point, words: str, *, size: float, ink: str, anchor: str = "middle", weight: int = 400) -> None:
        """Add words; `size` in fine lines."""
        x, y, height = _number(at[0]), _number(-at[1]), _number(size * self.line)
        self._body.append(
            f'<text x="{x}" y="{y}" font-family="{FONT}" font-size="{height}" font-weight="{weight}" fill="{ink}" '
            f'text-anchor="{anchor}">{escape(words)}</text>'
        )

    def arrow(self, start: Point, end: Point, *, ink: str, width: float = 1.0, both: bool = True) -> None:
        """Add a dimension line with filled tips."""
        self.path(path_of([start, end], closed=False), stroke=ink, stroke_width=width * self.line)
        length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
        if length == 0:
            return
        along = ((end[0] - start[0]) / length, (end[1] - start[1]) / length)
        tip = min(6 * self.line, length / 3)
        for at, way in ((end, 1.0), (start, -1.0)) if both else ((end, 1.0),):
            back = (at[0] - way * tip * along[0], at[1] - way * tip * along[1])
            across = (-along[1] * tip / 3, along[0] * tip / 3)
            corners = [at, (back[0] + across[0], back[1] + across[1]), (back[0] - across[0], back[1] - across[1])]
            self.path(path_of(corners), fill=ink)

    def balloon(self, at: Point, words: str, *, ink: str) -> None:
        """Add a number in a circle."""
        self.circle(at, 7.5 * self.line, fill="#ffffff", stroke=ink, stroke_width=self.line)
        self.text((at[0], at[1] - 3.4 * self.line), words, size=9.5, ink=ink, weight=600)

    def svg(self) -> str:
        """Return the drawing as SVG text."""
        left, _, _, top = self.box
        view = f"{_number(left)} {_number(-top)} {_number(self.width)} {_number(self.height)}"
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{view}" width="{_number(self.width)}mm" '
            f'height="{_number(self.height)}mm" role="img"><title>{escape(self.title)}</title>'
            f"<defs>{''.join(self._defs)}</defs>{''.join(self._body)}</svg>"
        )
