#let data = json(bytes(sys.inputs.at("data")))
#set document(title: data.title, author: data.letterhead.at(0, default: ""))
#set page(paper: data.paper, margin: 18mm, numbering: "1", fill: none)
#set text(font: "Libertinus Serif", size: 10pt, lang: data.language, fill: rgb("#20242e"))
#set par(leading: 0.6em)
#show heading.where(level: 2): it => block(above: 1.6em, below: 0.6em, width: 100%,
  stroke: (bottom: 0.5pt + rgb("#20242e")), inset: (bottom: 3pt), sticky: true, it)
#show heading.where(level: 3): it => block(above: 1.1em, below: 0.4em, sticky: true, it)
#let grey = rgb("#565b68")

#if data.logo != "" { place(top + right, image("/" + data.logo, height: 16mm, alt: "")) }
#for (n, line) in data.letterhead.enumerate() {
  if n == 0 { strong(line) } else { linebreak(); text(fill: grey, line) }
}
#if data.letterhead.len() > 0 { v(6mm) }

#heading(level: 1, data.title)
#text(fill: grey, data.made)
#if data.note != "" {
  block(inset: (left: 8pt), stroke: (left: 2pt + rgb("#4a46b8")), data.note)
}

#let bars(chart) = {
  let most = calc.max(1, ..chart.whole, ..chart.part)
  let height = 26mm
  grid(columns: chart.labels.len() * (1fr,), column-gutter: 3pt, row-gutter: 3pt,
    ..chart.labels.enumerate().map(((n, label)) => align(bottom, box(width: 100%, height: height, {
      place(bottom, rect(width: 100%, height: height * chart.whole.at(n) / most,
        fill: rgb("#f2f0e6"), stroke: 0.5pt + rgb("#6b707b")))
      place(bottom, rect(width: 100%, height: height * chart.part.at(n) / most,
        fill: rgb("#8481d4"), stroke: none))
    }))),
    ..chart.labels.map(label => align(center, text(size: 7pt, fill: grey, label))))
}

#for section in data.sections {
  heading(level: 2, section.title)
  for said in section.texts { par(said) }
  if section.chart != none { bars(section.chart) }
  for part in section.tables {
    if part.title != "" { heading(level: 3, part.title) }
    if part.rows.len() > 0 {
      set text(size: 8.5pt)
      table(
        // fixed widths: measuring thousands of cells takes longer than setting them
        columns: part.columns.enumerate().map(((n, column)) => if n == 0 { 1fr } else if (
          column.figure) { 52pt } else { 76pt }),
        align: (n, _) => if part.columns.at(n).figure { right } else { left },
        stroke: (_, y) => (bottom: 0.4pt + rgb("#d9d5c5")),
        inset: (x: 4pt, y: 2.4pt),
        table.header(..part.columns.map(column => text(fill: grey, column.head))),
        ..part.rows.flatten()
      )
    }
    if part.more > 0 { text(fill: grey, "+ " + str(part.more)) }
  }
}
