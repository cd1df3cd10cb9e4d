// The pages of a report. All content comes in as JSON; nothing of it is ever read as markup.
#import "style.typ": *
#import "blocks.typ": lay, figures

#let margin = (x: 0.6in, top: 0.6in, bottom: 0.8in)
#set document(title: data.title, author: data.at("by", default: ""), description: data.at("foot", default: ""))
#set page(
  paper: data.at("paper", default: "us-letter"),
  margin: margin,
  footer-descent: 22%,
  footer: context {
    set text(small-size, fill: quiet)
    set par(leading: 0.4em)
    line(length: 100%, stroke: 0.6pt + cedar)
    v(-5pt)
    grid(columns: (1fr, auto), column-gutter: 12pt, row-gutter: 3.5pt,
      soft(40, data.at("by-line", default: data.by)), if data.at("sheet", default: none) != none [#data.sheet] else [#counter(page).display("1 / 1", both: true)],
      grid.cell(colspan: 2, soft(40, data.foot)))
  },
)
#set text(font: "Figtree", size: body-size, fill: slate, lang: data.at("language", default: "en"), number-width: "tabular")
#set par(leading: 0.5em, spacing: 8pt)
#show " %": "\u{a0}%"
#set list(marker: text(fill: cedar, "•"))
#show heading.where(level: 1): it => block(above: 0pt, below: 9pt, text(font: serif, weight: 600, size: title-size, soft(22, it.body)))
#show heading.where(level: 2): it => block(above: 13pt, below: 6pt, sticky: true, text(font: serif, weight: 600, size: section-size, it.body))

#let titled(p) = {
  let made = [#heading(level: 1, p.title)#if p.at("name", default: "") != "" { label("page " + p.name) }]
  let logo = p.at("logo", default: "")
  if logo == "" { made } else {
    block(below: 9pt, grid(columns: (1fr, auto), column-gutter: 14pt, made, box(height: 28pt, drawn(logo, alt: data.logo-alt, height: 100%))))
  }
}
#let of-blocks(p) = {
  titled(p)
  if p.lead != "" { block(above: 0pt, below: 9pt, text(font: serif, section-size, p.lead)) }
  for b in p.blocks { if b.kind == "contents" {
      block(below: 8pt, table(columns: (1fr, 2fr, auto), stroke: (x, y) => if y > 0 { (top: 0.3pt + rule) }, inset: (x: 0pt, y: 6pt),
        ..b.rows.map(((name, title, words)) => {
          let to = label("page " + name)
          // a page looked at alone does not know on which sheets the others will be
          (context { let there = query(to).len() > 0; text(weight: 600, if there { link(to, title) } else { title }) }, text(fill: quiet, words),
            context text(fill: quiet, query(to).map(at => str(counter(page).at(at.location()).first())).at(0, default: "")))
        }).flatten()))
    } else { lay(b) } }
}

#let cover(p) = {
  if p.logo != "" { align(right, box(height: 0.55in, drawn(p.logo, alt: data.logo-alt, height: 100%))) } else { v(0.3in) }
  block(below: 8pt, text(font: serif, section-size, fill: cedar, p.title))
  [#heading(level: 1, outlined: true, soft(22, p.address))<page_cover>]
  block(below: 12pt, text(section-size, p.facts))
  if p.svg != none { block(width: 100%, height: 1fr, align(center + top, box(radius: 3pt, clip: true, drawn(p.svg, alt: p.alt, width: 100%, height: 100%, fit: "contain")))) }
  v(10pt)
  if p.price != none { lay(p.price) }
  line(length: 100%, stroke: 0.6pt + cedar)
  v(4pt)
  grid(columns: (1fr, auto), column-gutter: 16pt, align: horizon,
    [ #if p.client != "" [ #small(p.prepared-for) \ #text(section-size, weight: 500, soft(22, p.client)) \ ] #small(p.as-of) ],
    align(right, grid(columns: 2, column-gutter: 12pt, align: horizon, p.agent.map(a => soft(30, a)).join(linebreak()),
      if p.portrait != "" { box(radius: 4pt, clip: true, height: 0.95in, drawn(p.portrait, alt: data.portrait-alt, height: 100%)) })))
}

#let agents-note(p) = if p.at("note", default: "") != "" {
  block(above: 12pt, width: 100%, inset: (left: 8pt, y: 2pt), stroke: (left: 1.5pt + cedar), p.note)
}

#for (i, p) in data.pages.enumerate() {
  let before = if i > 0 { data.pages.at(i - 1).page } else { "" }
  // a page with a picture that takes the height that is left keeps it: under another its words would be too small
  let fills = before == "blocks" and data.pages.at(i - 1).blocks.any(b => b.kind == "filling" and b.needed)
  let flows = i > 0 and p.at("flow", default: false) and before == "blocks" and not fills
  if p.page == "own" {
    page(margin: 0pt, footer: none, align(center + horizon, image(p.path, width: 100%, height: 100%, fit: "contain", alt: p.title,
      ..if p.path.ends-with(".pdf") { (page: p.number) } else { (:) })))
    continue
  }
  if flows {
    // what is taller than a whole page begins one and goes on where it ends
    let made = { of-blocks(p); agents-note(p) }
    context {
      let (wide, tall) = (page.width - 2 * margin.x, page.height - margin.top - margin.bottom)
      if measure(width: wide, made).height <= tall { v(20pt, weak: true); block(breakable: false, made) } else { pagebreak(weak: true); made }
    }
    continue
  }
  if i > 0 and before != "own" { pagebreak(weak: true) }
  if p.page == "cover" { cover(p) } else { of-blocks(p) }
  agents-note(p)
}
