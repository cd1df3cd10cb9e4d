// Sizes, colours and small helpers of all pages.
#let data = json(bytes(sys.inputs.data))
#let slate = rgb("#24404E")
#let cedar = rgb(data.at("accent", default: "#A4572F"))
#let moss = rgb("#3E6A4B")
#let rain = rgb("#2A6596")
#let mist = rgb("#EDF2F3")
#let quiet = rgb("#55696F")
#let rule = rgb("#C9D4D8")
#let colours = (moss: moss, cedar: cedar, slate: slate, rain: rain)

#let title-size = 24pt
#let section-size = 13pt
#let body-size = 10pt
#let small-size = 9pt
#let serif = "Source Serif 4"

// A picture of the model by its key.
#let drawn(key, alt: "", ..how) = image(bytes(data.pictures.at(key)), format: "svg", alt: alt, ..how)
#let small(body) = text(small-size, fill: quiet, body)
// Words longer than `most` signs may break anywhere, so that none runs into what stands beside it.
#let soft(most, body) = {
  show regex("[^\s\-\u{200b}]{" + str(most) + ",}"): it => it.text.clusters().join("\u{200b}")
  body
}
// A home's number; nothing for one that has none.
#let badge(number, fill: slate) = if number != none { box(baseline: 2.5pt, circle(radius: 6.6pt, fill: fill, align(center + horizon, text(small-size, fill: white, weight: 600, str(number))))) }
// A picture cut to three by two, with the home's number in its corner.
#let framed(key, alt, number: none, width: 100%) = box(width: width, {
  if key != "" { box(radius: 2pt, clip: true, drawn(key, alt: alt, width: 100%)) } else { box(radius: 2pt, fill: mist, width: 100%, height: 24pt) }
  if number != none { place(top + left, dx: 3pt, dy: 3pt, badge(number)) }
})
