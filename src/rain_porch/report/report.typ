// The pages of a report. All content comes in as JSON; nothing of it is ever read as markup.
#let data = json(bytes(sys.inputs.data))
#let slate = rgb("#24404E")
#let cedar = rgb("#A4572F")
#let moss = rgb("#3E6A4B")
#let mist = rgb("#EDF2F3")
#let quiet = rgb("#55696F")
#let rule = rgb("#C9D4D8")

#set document(title: data.title, author: "Rain Porch")
#set page(
  paper: "us-letter",
  margin: (x: 0.62in, top: 0.6in, bottom: 0.7in),
  footer: context [
    #set text(7.2pt, fill: quiet)
    #line(length: 100%, stroke: 0.4pt + rule)
    #v(-4pt)
    A comparative market analysis, not an appraisal. Effective #data.effective; records through #data.through; made #data.made_on.
    #h(1fr) #(counter(page).get().first() + data.first - 1) / #data.last
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
    [ #figure-label[Indicated value] \
      #if p.value != none { text(30pt, weight: 600, fill: moss, p.value) } else { text(22pt, fill: quiet)[not yet known] } ],
    [ #figure-label[Likely range, 80 %#if p.range != none and not p.measured [, not yet measured]] \ #v(2pt)
      #if p.range != none { text(15pt, weight: 500, p.range) } else { text(fill: quiet)[—] } ],
    [ #figure-label[List price] \ #v(2pt)
      #if p.list_price != none {
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
      #text(8.6pt, p.sentence) ])
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
  #if p.ways.len() > 0 [
    == Ways to the number
    #set text(8.4pt)
    #table(columns: (auto, auto, 1fr), stroke: none, inset: (x: 3.5pt, y: 2.4pt), align: (left, right, left),
      ..p.ways.enumerate().map(((i, w)) => (
        text(weight: if i == 0 { 600 } else { 400 }, w.at(0)), text(weight: 600, fill: if i == 0 { moss } else { slate }, w.at(1)), text(7.4pt, fill: quiet, w.at(2))
      )).flatten())
  ]
]

#for (i, p) in data.pages.enumerate() {
  if i > 0 { pagebreak() }
  if p.page == "summary" { summary(p) } else if p.page == "comps" { comps(p) } else { adjustment-grid(p) }
}
