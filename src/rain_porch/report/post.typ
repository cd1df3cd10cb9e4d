// One picture for posting, square or wide: the headline, key figures, the prices by month, the agent.
#import "style.typ": *

#set document(title: data.title)
#let wide = data.shape == "wide"
#set page(width: if wide { 600pt } else { 540pt }, height: if wide { 315pt } else { 540pt }, margin: 28pt, fill: white)
#set text(font: "Figtree", size: 14pt, fill: slate, number-width: "tabular")
#set par(leading: 0.45em, spacing: 8pt)
#show " %": "\u{a0}%"

#block(below: 11pt, text(14pt, weight: 600, fill: cedar, soft(24, data.title)))
#block(above: 0pt, below: 17pt, text(font: serif, if wide { 19pt } else { 24pt }, weight: 600, soft(20, data.headline)))
#let figures = grid(columns: (1fr,) * if wide { 2 } else { calc.max(1, data.figures.len()) }, column-gutter: 12pt, row-gutter: 15pt,
  ..data.figures.map(f => {
    block(below: 8pt, text(12pt, fill: quiet, f.label))
    block(above: 0pt, below: 8pt, text(if wide { 20pt } else { 26pt }, weight: 600, fill: rain, f.value))
    block(above: 0pt, below: 0pt, text(12pt, fill: quiet, f.change))
  }))
#if wide {
  grid(columns: (1fr, 1fr), column-gutter: 16pt, figures, if data.svg != "" { drawn(data.svg, alt: data.alt, width: 100%, height: 168pt, fit: "contain") })
} else {
  figures
  v(10pt)
  if data.svg != "" { block(height: 1fr, width: 100%, inset: (bottom: 26pt), align(center + horizon, drawn(data.svg, alt: data.alt, width: 100%, height: 100%, fit: "contain"))) }
}
#place(bottom, float: false, dy: if wide { 8pt } else { 10pt }, block(width: 100%, {
  line(length: 100%, stroke: 0.8pt + cedar)
  v(-6pt)
  grid(columns: (1fr, auto), column-gutter: 10pt, text(12pt, weight: 600, soft(40, data.by)), text(11pt, fill: quiet, data.foot))
}))
