// How each kind of block is laid out; the kinds are those of blocks.py.
#import "style.typ": *

#let block-table(b) = {
  set text(small-size)
  set par(leading: 0.42em)
  let plain = b.head.all(h => h == "")
  let made = table(columns: b.widths.map(w => w * 1fr), stroke: none, inset: (x: 3pt, y: 3.4pt),
    align: (x, y) => if x < b.words { left } else { right },
    ..if not plain { (table.header(..b.head.map(h => soft(14, small(h))), table.hline(stroke: 0.8pt + slate)),) } else { () },
    ..b.rows.enumerate().map(((i, r)) => {
      let total = b.last and i == b.rows.len() - 1
      (
        ..if total { (table.hline(stroke: 0.8pt + slate),) } else if i > 0 { (table.hline(stroke: 0.3pt + rule),) } else { () },
        ..r.enumerate().map(((k, c)) => soft(22, if total { text(weight: 600, c) } else if k == 0 and plain { text(fill: quiet, c) } else { [#c] }))
      )
    }).flatten())
  block(above: 6pt, below: 10pt, width: b.share * 100%, made)
}

#let pairs(b) = {
  set text(small-size)
  let rows = calc.ceil(b.items.len() / b.columns)
  let part(k) = table(columns: (1.15fr, 1fr), stroke: (x, y) => if y > 0 { (top: 0.3pt + rule) }, inset: (x: 0pt, y: 3.2pt),
    ..b.items.slice(calc.min(k * rows, b.items.len()), calc.min((k + 1) * rows, b.items.len())).map(((name, value)) => (soft(22, text(fill: quiet, name)), soft(22, text(weight: 500, value)))).flatten())
  block(above: 6pt, below: 10pt, grid(columns: (1fr,) * b.columns, column-gutter: 18pt, ..range(b.columns).map(part)))
}

#let figures(b) = {
  let shown(f, size) = [
    #block(below: if size > 20pt { 9pt } else { 5pt }, small(f.at(0)))
    #block(above: 0pt, below: 5pt, text(size, weight: 600, fill: colours.at(f.at(2)), f.at(1)))]
  if b.stacked {
    for (i, f) in b.items.enumerate() { block(below: if i == 0 { 9pt } else { 6pt }, shown(f, if i == 0 { 34pt } else { section-size })) }
  } else {
    let first = if b.items.len() > 3 { 18pt } else { 34pt }
    block(above: 4pt, below: 10pt, grid(columns: if b.items.len() > 3 { (1fr,) * b.items.len() } else { (auto,) + (1fr,) * (b.items.len() - 1) }, column-gutter: 22pt, align: bottom,
      ..b.items.enumerate().map(((i, f)) => shown(f, if i == 0 { first } else { section-size }))))
  }
}

// Key figures beside each other, each with its change and a small chart.
#let keys(b) = block(above: 6pt, below: 10pt, grid(columns: (1fr,) * if b.items.len() > 4 { 3 } else { b.items.len() }, column-gutter: 14pt, row-gutter: 12pt,
  ..b.items.map(k => block(breakable: false, {
    block(below: 6pt, small(k.label))
    block(above: 0pt, below: 6pt, text(18pt, weight: 600, fill: rain, k.value))
    block(above: 0pt, below: 4pt, small(k.change))
    if k.svg != "" { drawn(k.svg, alt: k.alt, width: 100%) }
  }))))

#let cards(b) = {
  let across = b.across
  block(above: 6pt, below: 10pt, grid(columns: (1fr,) * across, column-gutter: 12pt, row-gutter: 11pt,
    ..b.cards.map(c => block(breakable: false, {
      set text(small-size)
      set par(leading: 0.42em)
      if c.svg != "" { framed(c.svg, c.alt, number: c.number) } else if c.number != none { badge(c.number) }
      block(above: 4pt, below: 0pt, soft(18, text(weight: 600, c.title)))
      if c.price != "" { block(above: 3.5pt, below: 0pt, text(weight: 600, fill: rain, c.price)) }
      for l in c.lines { block(above: 3.5pt, below: 0pt, soft(18, text(fill: quiet, l))) }
    }))))
}

// One row a home: its picture, what it brought or asks, and how it differs.
#let glance(b) = {
  // a second part of a long list begins a page
  if not b.at("first", default: true) { pagebreak(weak: true) }
  set text(small-size)
  set par(leading: 0.4em)
  let pictured = b.rows.any(r => r.svg != "")
  let widths = (if pictured { (b.thumb * 1pt + 6pt,) } else { (18pt,) }) + (1.55fr, 1.05fr, 1.55fr)
  table(columns: widths, row-gutter: 0pt, stroke: (x, y) => if y > 1 { (top: 0.3pt + rule) } else if y == 1 { (top: 0.8pt + slate) }, inset: (x: 3pt, y: 3.2pt), align: left + top,
    table.header(..b.head.map(small)),
    ..b.rows.map(r => (
      if r.svg != "" { framed(r.svg, r.alt, number: r.number) } else { badge(r.number) },
      [ #soft(18, text(body-size, weight: 600, r.title)) #linebreak() #soft(18, text(fill: quiet, r.facts)) ],
      [ #text(body-size, weight: 600, fill: rain, r.price) #linebreak() #r.status #linebreak() #text(fill: quiet, r.pace) ],
      soft(18, r.differs),
    )).flatten())
}

// Lines down, homes across: each column has its home's picture and number on top.
#let matrix(b) = {
  set text(small-size)
  set par(leading: 0.4em)
  let n = b.heads.len()
  let blank = ([],) * (b.most - n)
  let head(h) = align(right, {
    if h.svg != "" { framed(h.svg, h.alt, number: h.number) } else { badge(h.number) }
    block(above: 3pt, below: 0pt, soft(12, text(weight: 600, h.title)))
  })
  block(breakable: b.rows.len() > 24, above: 6pt, below: 14pt, table(
    columns: (1.45fr, b.second * 1fr) + (1fr,) * b.most, stroke: none, inset: (x: 2.5pt, y: 2.7pt),
    align: (x, y) => if x == 0 { left + bottom } else if y == 0 and x > 1 { right + top } else { right + bottom },
    fill: (x, y) => if x == 1 and b.mine != "" { mist },
    table.header([], soft(9, if b.mine != "" { text(weight: 600, fill: cedar, b.mine) } else { small(b.over) }), ..b.heads.map(head), ..blank, table.hline(stroke: 0.8pt + slate)),
    ..b.rows.map(r => (
      ..if r.line { (table.hline(stroke: 0.5pt + rule),) } else { () },
      soft(16, text(fill: if r.strong { slate } else { quiet }, weight: if r.strong { 600 } else { 400 }, r.cells.at(0))),
      text(fill: if b.mine != "" { slate } else { quiet }, r.cells.at(1)),
      ..r.cells.slice(2).map(c => soft(11, text(weight: if r.strong { 600 } else { 400 }, c))),
      ..blank,
    )).flatten()))
}

// A picture drawn for several heights: the tallest that fits into what is left of the page.
#let wide-drawn = 526
#let filling(b) = {
  let words = if b.caption != "" { block(above: 4pt, below: 4pt, small(b.caption)) }
  let least = b.sizes.first().height * 1pt
  let made = block(above: 6pt, below: 3pt, height: 1fr, width: 100%, layout(room => {
    let head = if b.title != "" { heading(level: 2, b.title) }
    let over = if b.title != "" { measure(width: room.width, block(head)).height + 14pt } else { 0pt }
    let fits = b.sizes.filter(s => s.height / wide-drawn * room.width <= room.height - over)
    if fits.len() > 0 { head; drawn(fits.last().svg, alt: b.alt, width: 100%) } else if b.needed { align(center, drawn(b.sizes.first().svg, alt: b.alt, height: room.height, width: 100%, fit: "contain")) }
  }))
  if b.needed { block(height: 0pt, above: 0pt, below: 0pt, sticky: true); made } else { made }
  words
}

#let lay(b) = {
  if b.kind == "heading" { heading(level: 2, b.text) }
  else if b.kind == "para" {
    if b.small { block(above: 5pt, below: 8pt, small(b.text)) }
    else if b.large { block(above: 5pt, below: 7pt, text(font: serif, section-size, b.text)) }
    else { block(above: 5pt, below: 8pt, b.text) }
  }
  else if b.kind == "table" { block-table(b) }
  else if b.kind == "pairs" { pairs(b) }
  else if b.kind == "figures" { figures(b) }
  else if b.kind == "keys" { keys(b) }
  else if b.kind == "homes" { cards(b) }
  else if b.kind == "glance" { glance(b) }
  else if b.kind == "matrix" { matrix(b) }
  else if b.kind == "list" { block(above: 4pt, below: 8pt, list(indent: 0pt, spacing: 6pt, ..b.items)) }
  else if b.kind == "ruled" { block(above: 8pt, below: 14pt)[ #small(b.label) #v(20pt) #line(length: 45%, stroke: 0.7pt + slate) ] }
  else if b.kind == "columns" {
    block(above: 4pt, below: 8pt, grid(columns: b.widths.map(w => w * 1fr), column-gutter: 16pt, ..b.parts.map(part => part.map(lay).join())))
  }
  else if b.kind == "picture" {
    let words = if b.caption != "" { block(above: 4pt, below: 8pt, small(b.caption)) }
    block(breakable: false, above: 6pt, below: 6pt, { drawn(b.svg, alt: b.alt, width: b.width * 100%); words })
  }
  else if b.kind == "filling" { filling(b) }
}
