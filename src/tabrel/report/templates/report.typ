// The report as pages. Everything it says comes in as data: no text is ever read as markup.
#let data = json(bytes(sys.inputs.report))
#let ink = rgb("#211d17")
#let soft = rgb("#5b5143")
#let rule-ink = rgb("#93866f")
#let wash = rgb("#f3ede2")
#let hand = rgb("#0c666d")
#let amber = rgb("#7d5206")
#let rust = rgb("#8a3417")

#set document(title: data.title, author: if data.prepared_by == none { () } else { (data.prepared_by,) }, date: none)
#set text(font: ("IBM Plex Sans", "DejaVu Sans Mono"), size: 9pt, fill: ink, lang: "en", region: "gb", hyphenate: false)
#set par(justify: false, leading: 0.55em)
#let margins = (top: 22mm, bottom: 18mm, left: 18mm, right: 18mm)
#let the-header = context {
  set text(size: 7.5pt, fill: soft)
  grid(columns: (1fr, auto), gutter: 8mm,
    box(height: 1.1em, clip: true, data.title),
    if data.number == none and data.report_kind == "report" { text(fill: rust, weight: 600, data.standing) } else { data.standing })
  v(-2.2mm)
  line(length: 100%, stroke: 0.4pt + rule-ink)
}
#let the-footer = context {
  set text(size: 7.5pt, fill: soft)
  grid(columns: (1fr, auto), [#data.dated],
    [page #counter(page).display() of #counter(page).final().first()])
}
#set page(paper: if data.paper == "letter" { "us-letter" } else { "a4" }, margin: margins, header: the-header, footer: the-footer)

#show heading.where(level: 1): it => block(above: 9mm, below: 3.5mm, sticky: true, text(size: 14pt, weight: 600, it.body))
#show heading.where(level: 2): it => block(above: 6mm, below: 2.5mm, sticky: true, text(size: 11pt, weight: 600, fill: hand, it.body))
#show heading.where(level: 3): it => block(above: 4mm, below: 2mm, sticky: true, text(size: 9.5pt, weight: 600, it.body))
#show figure.caption: it => block(width: 100%, sticky: true, align(left, text(size: 8pt, fill: soft, it.body)))
#set figure(gap: 1.5mm, numbering: none, supplement: none)
#show table.cell: set par(justify: false)

#let said(words, tone) = {
  if tone == "lead" { text(size: 10pt, words) }
  else if tone == "small" { text(size: 8pt, fill: soft, words) }
  else if tone == "assumed" { block(width: 100%, inset: (left: 2.5mm, y: 1mm), stroke: (left: 1.2pt + amber), text(fill: amber, words)) }
  else if tone == "caution" { text(fill: rust, words) }
  else if tone == "opinion" { block(width: 100%, inset: 2.5mm, fill: wash, stroke: (left: 1.2pt + hand), [#text(weight: 600, fill: hand)[Opinion] #h(1.5mm) #words]) }
  else { words }
}

#let picture(one, height) = image(bytes(one.svg), format: "svg", alt: one.alt, height: height * 1mm, width: 100%, fit: "contain")

#let the-table(one) = {
  let columns = one.widths.map(w => w * 1mm)
  let aligned = one.columns.map(c => if c.is_number { right } else { left })
  let cells = ()
  for row in one.rows {
    if row.len() == 1 and one.columns.len() > 1 {
      cells.push(table.cell(colspan: one.columns.len(), align: left, fill: wash, inset: (x: 1.5mm, y: 1.1mm), text(weight: 600, row.at(0))))
    } else {
      for (i, cell) in row.enumerate() { cells.push(table.cell(align: aligned.at(i) + top, cell)) }
    }
  }
  figure(kind: table, placement: none, caption: figure.caption(position: top, one.caption), {
    set text(size: one.size * 1pt)
    table(columns: columns, inset: (x: 1.5mm, y: if one.is_form { 2.3mm } else { 1.1mm }), stroke: if one.is_form { (x: 0.4pt + rule-ink, y: 0.4pt + rule-ink) } else { none },
      table.hline(stroke: 0.7pt + ink),
      table.header(repeat: true, ..one.columns.enumerate().map(((i, c)) => table.cell(align: aligned.at(i) + bottom, text(weight: 600, c.title))), table.hline(stroke: 0.4pt + ink)),
      ..cells,
      table.hline(stroke: 0.7pt + ink))
  })
}
#show figure.where(kind: table): set block(breakable: true)

#let own(block-of) = {
  let words = block-of.words.map(w => {
    let t = if w.is_code { raw(w.text) } else { w.text }
    if w.text == "\n" { t = linebreak() }
    if w.is_strong { t = strong(t) }
    if w.is_emphasised { t = emph(t) }
    t
  }).join()
  if block-of.kind == "heading" { heading(level: calc.min(3, block-of.level + 1), outlined: true, words) }
  else if block-of.kind == "paragraph" { par(words) }
  else {
    let mark = if block-of.kind == "number" { str(block-of.number) + "." } else { "•" }
    block(inset: (left: block-of.level * 4mm - 3mm), above: 1.2mm, below: 1.2mm, grid(columns: (4mm, 1fr), mark, words))
  }
}

#let render(one) = {
  if one.kind == "Heading" { if one.begins_page { pagebreak(weak: true) }; heading(level: one.level, one.text) }
  else if one.kind == "Boxed" {
    block(width: 100%, above: 3mm, below: 4mm, inset: (x: 4mm, y: 3.2mm), fill: wash, stroke: (left: 2.4pt + hand), {
      text(size: 13pt, weight: 600, one.lead)
      set text(size: 9.5pt)
      for (title, words) in one.rows {
        block(above: 2mm, below: 0mm, { if title != "" { text(weight: 600, fill: amber, title + " ") }; words })
      }
    })
  }
  else if one.kind == "Paragraph" { block(above: 2mm, below: 2mm, sticky: one.tone == "small", said(one.text, one.tone)) }
  else if one.kind == "Points" { block(above: 2mm, below: 3mm, list(marker: text(fill: rule-ink)[–], spacing: 1.6mm, ..one.items.map(item => said(item, one.tone)))) }
  else if one.kind == "Facts" {
    block(above: 2mm, below: 3mm, breakable: false, grid(columns: (30mm, 1fr), column-gutter: 3mm, row-gutter: 1.6mm,
      ..one.rows.map(r => (text(fill: soft, r.at(0)), r.at(1))).flatten()))
  }
  else if one.kind == "Table" {
    let body = block(above: 3mm, below: 4mm, breakable: one.rows.len() > 16, the-table(one))
    if one.is_wide { page(flipped: true, margin: (x: 14mm, top: 20mm, bottom: 16mm), body) } else { body }
  }
  else if one.kind == "Picture" {
    block(above: 3mm, below: 4mm, breakable: false, figure(alt: one.alt, picture(one, one.height), caption: figure.caption(position: bottom, one.caption)))
  }
  else if one.kind == "PictureWithFacts" {
    block(above: 3mm, below: 4mm, breakable: false, grid(columns: (1.15fr, 1fr), column-gutter: 5mm, align: horizon,
      figure(alt: one.picture.alt, picture(one.picture, one.picture.height), caption: figure.caption(position: bottom, one.picture.caption)),
      {
        set text(size: 7.8pt)
        grid(columns: (auto, 1.25fr, 1fr), column-gutter: 2mm, row-gutter: 1.5mm,
          ..one.facts.map(f => (text(weight: 600, fill: hand, f.at(0)), f.at(1), align(right, f.at(2)))).flatten())
        if one.note != "" { block(above: 2.5mm, text(fill: soft, one.note)) }
      }))
  }
  else if one.kind == "Labels" {
    grid(columns: (1fr, 1fr, 1fr), ..one.items.map(lines => rect(width: 100%, height: 32mm, inset: 3mm, stroke: (thickness: 0.4pt, paint: rule-ink, dash: "dashed"), {
      box(height: 6.5mm, clip: true, text(size: 13pt, weight: 600, lines.at(0)))
      for line in lines.slice(1) { linebreak(); text(size: 8.5pt, line) }
    })))
  }
  else if one.kind == "OwnText" {
    block(width: 100%, above: 4mm, below: 4mm, inset: (left: 3mm), stroke: (left: 1.2pt + hand), {
      text(size: 7.5pt, fill: hand, weight: 600)[Text of the analyst]
      one.blocks.map(own).join()
    })
  }
}

// the head of the first page
#block(below: 5mm, {
  show title: set text(size: 17pt, weight: 600)
  title()
  v(-1mm)
  let who = (("Prepared by", data.prepared_by), ("Prepared for", data.prepared_for)).filter(x => x.at(1) != none)
  set text(size: 8.5pt, fill: soft)
  [#data.standing · #data.dated#if data.number == none and data.report_kind == "report" [ · not valid as a report until it is issued]]
  for (name, value) in who [ · #name #value]
})

#for (i, one) in data.blocks.enumerate() {
  if i == 0 and one.kind == "Heading" { block(above: 2mm, below: 3mm, { show heading: it => text(size: 12pt, weight: 600, it.body); heading(level: 1, one.text) }) } else { render(one) }
}
