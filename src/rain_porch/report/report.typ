// The pages of a report. All content comes in as JSON; nothing of it is ever read as markup.
#let data = json(bytes(sys.inputs.data))
#let slate = rgb("#24404E")
#let cedar = rgb(data.at("accent", default: "#A4572F"))
#let moss = rgb("#3E6A4B")
#let mist = rgb("#EDF2F3")
#let quiet = rgb("#55696F")
#let rule = rgb("#C9D4D8")

#set document(title: data.title, author: "Rain Porch")
#set page(
  paper: data.at("paper", default: "us-letter"),
  margin: (x: 0.62in, top: 0.6in, bottom: 0.7in),
  footer: context [
    #set text(7.2pt, fill: quiet)
    #line(length: 100%, stroke: 0.4pt + rule)
    #v(-4pt)
    #data.foot
    #h(1fr) #if data.by != "" [#data.by · ] #if data.at("first", default: none) != none [#data.first] else [#counter(page).display("1 / 1", both: true)]
  ],
)
#set text(font: "Figtree", size: 9.4pt, fill: slate, lang: "en", number-width: "tabular")
#set par(leading: 0.55em)
#show heading.where(level: 1): it => block(above: 0pt, below: 8pt, text(font: "Source Serif 4", weight: 600, size: 21pt, it.body))
#show heading.where(level: 2): it => block(above: 14pt, below: 6pt, text(font: "Source Serif 4", weight: 600, size: 12.5pt, it.body))

#let figure-label(t) = text(8pt, fill: quiet, t)

#let summary(p) = [
  = #p.title
  #text(10.5pt, p.facts)
  #if p.client != "" [ #h(1fr) #text(fill: quiet)[Prepared for #p.client] ]
  #v(10pt)
  #grid(
    columns: (1.25fr, 1fr, 1fr), column-gutter: 16pt,
    [ #if p.shows == "shown" [ #figure-label[Indicated value] ] \
      #if p.shows != "shown" [] else if p.value != none { text(30pt, weight: 600, fill: moss, p.value) } else { text(22pt, fill: quiet)[not yet known] } ],
    [ #if p.shows == "shown" [ #figure-label[#p.range_name] \ #v(2pt)
      #if p.range != none { text(15pt, weight: 500, p.range) } else { text(fill: quiet)[—] } ] ],
    [ #if p.shows != "hidden" [ #figure-label[List price] ] \ #v(2pt)
      #if p.shows == "hidden" [] else if p.list_price != none and p.shows == "shown" {
        text(15pt, weight: 600, fill: cedar, p.list_price)
        if p.list_says != none { linebreak(); text(8pt, fill: quiet, p.list_says) }
      } else { v(10pt); line(length: 85%, stroke: 0.6pt + slate) } ],
  )
  #for m in p.missing [ #block(above: 6pt, below: 2pt, fill: rgb("#FBF1D6"), inset: 6pt, radius: 2pt, width: 100%, m) ]
  #v(4pt)
  #image(bytes(p.rail), format: "svg", width: 100%, alt: "Price rail: comps above the line, competing homes below it")
  #v(4pt)
  #image(bytes(p.map), format: "svg", width: 100%, alt: "Map of the subject and its comps")
  #v(2pt)
  #text(8pt, fill: quiet)[House: the subject. Numbered discs: comps, in the order of the next pages. Small discs: other sales; rings: for sale; half discs: under contract; slashed rings: failed.]
  #grid(columns: (1.5fr, 1fr), column-gutter: 18pt,
    [ == What is around
      #if p.statistics.len() > 0 {
        table(columns: (1.3fr, auto, 1fr, 1fr, 1fr, 1fr), stroke: none, inset: (x: 3pt, y: 3pt),
          align: (left, right, right, right, right, right),
          table.header(..("", "homes", "low", "median", "mean", "high").map(t => figure-label(t))),
          table.hline(stroke: 0.5pt + rule),
          ..p.statistics.flatten())
      } else [ Nothing was found by this search. ] ],
    [ == How it was searched
      #text(8.6pt, p.sentence)
      #if p.sources != "" { block(above: 5pt, text(7.6pt, fill: quiet)[Records: #p.sources.]) } ])
]

#let comp-head(h) = [ #box(baseline: 1.5pt, circle(radius: 5.6pt, fill: slate, align(center + horizon, text(7pt, fill: white, weight: 600, str(h.at(0)))))) \ #text(8.2pt, weight: 600, h.at(1)) ]

#let comps(p) = [
  = The comps beside the subject
  #if p.blocks.len() == 0 [ #block(fill: rgb("#FBF1D6"), inset: 8pt, radius: 2pt, width: 100%)[No comps are kept yet. Keep some sales in Comps and this page fills itself.] ]
  #for b in p.blocks {
    let n = b.heads.len()
    block(breakable: false, below: 16pt, {
      set text(8.2pt)
      table(columns: (1.35fr, 1fr) + (1fr,) * 6, stroke: none, inset: (x: 3.5pt, y: 3.4pt),
        align: (x, y) => if x == 0 { left } else { right },
        fill: (x, y) => if x == 1 { mist },
        [], align(right, text(8.2pt, weight: 600, fill: cedar, p.subject)), ..b.heads.map(comp-head), ..([],) * (6 - n),
        table.hline(stroke: 0.8pt + slate),
        ..b.rows.map(r => (text(fill: quiet, r.at(0)), ..r.slice(1).map(c => [#c]), ..([],) * (6 - n))).flatten(),
        table.hline(stroke: 0.5pt + rule),
        text(fill: quiet)[Differs], [], ..b.differs.map(d => align(right, text(7.2pt, d))), ..([],) * (6 - n),
        ..if b.flags.any(f => f != "") { (text(fill: quiet)[Note], [], ..b.flags.map(f => align(right, text(7.2pt, fill: cedar, f))), ..([],) * (6 - n)) } else { () },
      )
    })
  }
]

#let adjustment-grid(p) = [
  = Adjusted to the subject
  #text(8.8pt, fill: quiet)[Plus where the comp is inferior, minus where it is superior. Concessions and market change first, then features.]
  #v(4pt)
  #if p.blocks.len() == 0 [ #block(fill: rgb("#FBF1D6"), inset: 8pt, radius: 2pt, width: 100%)[No comps are kept yet, so there is nothing to adjust.] ]
  #for b in p.blocks {
    let n = b.heads.len()
    let blank = ([],) * (6 - n)
    let tight = if b.rows.len() > 9 { 2.4pt } else { 3pt }
    block(breakable: false, below: if b.rows.len() > 9 { 9pt } else { 14pt }, {
      set text(8.2pt)
      table(columns: (1.5fr, 1.05fr) + (1fr,) * 6, stroke: none, inset: (x: 3.5pt, y: tight),
        align: (x, y) => if x == 0 { left } else { right },
        [], align(right, figure-label[rate]), ..b.heads.map(comp-head), ..blank,
        table.hline(stroke: 0.8pt + slate),
        [Close price], [], ..b.prices, ..blank,
        ..b.rows.map(r => (text(fill: quiet, r.at(0)), text(7.4pt, fill: quiet, r.at(1)), ..r.slice(2).map(c => [#c]), ..blank)).flatten(),
        table.hline(stroke: 0.5pt + rule),
        text(fill: quiet)[Net], [], ..b.net, ..blank,
        text(fill: quiet)[Gross], [], ..b.gross, ..blank,
        text(weight: 600)[Adjusted price], [], ..b.adjusted.map(v => text(weight: 600, v)), ..blank,
        text(fill: quiet)[Weight], [], ..b.weights, ..blank,
      )
    })
  }
  #if p.apart != none [ #text(9pt, p.apart) ]
  #if p.ways.len() > 0 [
    == Ways to the number
    #set text(8.4pt)
    #table(columns: (auto, auto, 1fr), stroke: none, inset: (x: 3.5pt, y: 2.4pt), align: (left, right, left),
      ..p.ways.enumerate().map(((i, w)) => (
        text(weight: if i == 0 { 600 } else { 400 }, w.at(0)), text(weight: 600, fill: if i == 0 { moss } else { slate }, w.at(1)), text(7.4pt, fill: quiet, w.at(2))
      )).flatten())
  ]
]

#let block-table(b) = {
  set text(8.6pt)
  let n = b.head.len()
  table(columns: b.widths.map(w => w * 1fr), stroke: none, inset: (x: 3.5pt, y: 3.9pt),
    align: (x, y) => if x < b.words { left } else { right },
    ..if b.head.any(h => h != "") { (table.header(..b.head.map(h => figure-label(h))), table.hline(stroke: 0.8pt + slate)) } else { () },
    ..b.rows.enumerate().map(((i, r)) => (
      ..if b.last and i == b.rows.len() - 1 { (table.hline(stroke: 0.8pt + slate),) } else { () },
      ..r.enumerate().map(((k, c)) => if b.last and i == b.rows.len() - 1 { text(weight: 600, c) } else if k == 0 and b.head.all(h => h == "") { text(fill: quiet, c) } else { [#c] })
    )).flatten())
}

#let colours = (moss: moss, cedar: cedar, slate: slate)

#let draw-block(b) = {
  if b.kind == "heading" [ == #b.text ]
  else if b.kind == "para" { block(below: 8pt, text(if b.small { 8pt } else { 9.8pt }, fill: if b.small { quiet } else { slate }, b.text)) }
  else if b.kind == "note" { block(below: 8pt, fill: rgb("#FBF1D6"), inset: 8pt, radius: 2pt, width: 100%, b.text) }
  else if b.kind == "table" { block-table(b) }
  else if b.kind == "picture" {
    block(above: 8pt, below: 6pt, image(bytes(b.svg), format: "svg", width: b.width * 100%, alt: b.alt))
    if b.caption != "" { block(below: 8pt, text(8pt, fill: quiet, b.caption)) }
  } else if b.kind == "figures" {
    block(above: 6pt, below: 12pt, grid(columns: b.items.len() * (1fr,), column-gutter: 14pt,
      ..b.items.enumerate().map(((i, f)) => [ #figure-label(f.at(0)) #v(-4pt) #box(height: 24pt, align(bottom, text(if i == 0 { 24pt } else { 16pt }, weight: 600, fill: colours.at(f.at(2)), f.at(1)))) ])))
  } else if b.kind == "ruled" {
    block(above: 8pt, below: 16pt)[ #figure-label(b.label) #v(22pt) #line(length: 40%, stroke: 0.7pt + slate) ]
  } else if b.kind == "homes" {
    block(below: 10pt, grid(columns: (1fr,) * if b.cards.len() <= 4 { 4 } else { 3 }, column-gutter: 14pt, row-gutter: 12pt,
      ..b.cards.map(c => block(breakable: false)[
        #image(bytes(c.svg), format: "svg", width: 100%, alt: "Front of " + c.title)
        #v(-4pt) #text(9pt, weight: 600, c.title) #h(1fr) #text(9pt, weight: 600, c.price) \
        #text(7.8pt, fill: quiet, c.lines.join(linebreak()))
      ])))
  }
}

#let of-blocks(p) = [
  = #p.title
  #if p.lead != "" { block(below: 10pt, text(10pt, fill: quiet, p.lead)) }
  #for b in p.blocks { draw-block(b) }
]

#let cover(p) = [
  #if p.logo != "" { place(top + right, image(bytes(p.logo), format: "svg", height: 0.55in, alt: "Logo")) }
  #v(0.4in)
  #text(font: "Source Serif 4", 13pt, fill: cedar, p.title)
  #block(above: 10pt, below: 16pt, text(font: "Source Serif 4", weight: 600, size: 34pt, p.address))
  #text(11pt, p.facts)
  #v(14pt)
  #if p.svg != none { image(bytes(p.svg), format: "svg", width: 100%, alt: "Front of " + p.address) }
  #v(14pt)
  #if p.price != none { draw-block(p.price) }
  #v(1fr)
  #grid(columns: (1fr, auto), [ #if p.client != "" [ #figure-label[Prepared for] \ #text(12pt, weight: 500, p.client) ] ],
    align(right, grid(columns: 2, column-gutter: 10pt, align: horizon, [ #figure-label[As of #p.date] \ #p.agent ],
      if p.portrait != "" { box(radius: 4pt, clip: true, image(bytes(p.portrait), format: "svg", height: 0.9in, alt: "Portrait of the agent")) })))
]

#let agents-note(p) = if p.at("note", default: "") != "" {
  block(above: 14pt, width: 100%, inset: (left: 8pt, y: 2pt), stroke: (left: 1.5pt + cedar), text(9.4pt, p.note))
}

#for (i, p) in data.pages.enumerate() {
  let before = if i > 0 { data.pages.at(i - 1).page } else { "" }
  let flows = i > 0 and p.at("flow", default: false) and before == "blocks"
  if p.page == "own" {
    page(margin: 0pt, footer: none, align(center + horizon, image(p.path, width: 100%, height: 100%, fit: "contain", alt: p.title,
      ..if p.path.ends-with(".pdf") { (page: p.number) } else { (:) })))
    continue
  }
  if flows { v(22pt, weak: true) } else if i > 0 and before != "own" { pagebreak(weak: true) }
  if flows { block(breakable: false, { of-blocks(p); agents-note(p) }); continue }
  if p.page == "summary" { summary(p) } else if p.page == "comps" { comps(p) } else if p.page == "grid" { adjustment-grid(p) } else if p.page == "cover" { cover(p) } else { of-blocks(p) }
  agents-note(p)
}
