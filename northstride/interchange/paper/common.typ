// What every sheet shares: paper, letters, marks of a side, head and foot. Read in black and white too.
#let data = json(bytes(sys.inputs.sheet))
#let paper = sys.inputs.paper
#let ink = rgb("#18242a")
#let quiet = rgb("#4f5a5d")
#let hair = rgb("#b9b2a2")
#let inks = (left: rgb("#1b5f8c"), right: rgb("#9a4a1c"))
#let months = ("January", "February", "March", "April", "May", "June", "July", "August", "September",
  "October", "November", "December")

#let day(text) = {
  if text == none { none } else {
    let parts = text.slice(0, 10).split("-").map(int)
    [#parts.at(2) #months.at(parts.at(1) - 1) #parts.at(0)]
  }
}

// A side three ways: letter, half disc, colour. Its place is the lane's.
#let half(side) = box(width: 0.36em, height: 0.72em, baseline: 0.04em, clip: true,
  place(dx: if side == "left" { 0em } else { -0.36em }, circle(radius: 0.36em, fill: inks.at(side))))
#let mark(side) = if side == "left" {
  box[#half("left")#h(0.15em)#text(fill: inks.left, weight: 700)[L]]
} else if side == "right" {
  box[#text(fill: inks.right, weight: 700)[R]#h(0.15em)#half("right")]
}

#let brand = box(width: 13pt, height: 16pt, {
  place(dy: 2pt, box(width: 6pt, height: 12pt, clip: true, circle(radius: 6pt, fill: inks.left)))
  place(dx: 7pt, dy: 0pt, box(width: 6pt, height: 12pt, clip: true,
    place(dx: -6pt, circle(radius: 6pt, fill: inks.right))))
})

// Strength as upright strokes, ruled down as one low one; always with the word.
#let tally(strength) = {
  let many = (possible: 1, likely: 2, strong: 3).at(strength)
  box(for place in range(3) {
    box(width: 2.4pt, height: 8pt, fill: if place < many { ink } else { luma(215) })
    h(2pt)
  })
  h(2pt)
  strong(strength)
}

#let rule = line(length: 100%, stroke: 0.6pt + ink)
#let thick = line(length: 100%, stroke: 1.2pt + ink)

// Words that a person may have typed: never read as anything but words.
#let said(words) = words.split("\n").filter(each => each.trim() != "").map(each => [#each]).join(linebreak())

// What was measured or found, drawn as on the screen, with its words for whoever does not see it.
#let figure-of(code, side, height: 46pt) = {
  let own = data.figures.at(if code == none { "" } else { code }, default: none)
  let drawn = if own == none { none } else { own.at(side) }
  if drawn != none { image(bytes(drawn.svg), format: "svg", height: height, alt: drawn.says) }
}
// Change lines, as far as there are any.
#let over-time(height: auto) = for each in data.lines {
  block(breakable: false, above: 8pt, image(bytes(each.svg), format: "svg", width: 100%, alt: each.says))
}
#let value-of(code, side) = {
  let own = data.figures.at(if code == none { "" } else { code }, default: none)
  let drawn = if own == none { none } else { own.at(side) }
  if drawn != none and drawn.value != none { drawn.value }
}

#let head = data.head
#let draft-across = if head.status == "draft" {
  pdf.artifact(rotate(-32deg, text(size: 118pt, weight: 700, stroke: 1pt + luma(170), fill: rgb(0, 0, 0, 0))[DRAFT]))
}

// A draft says so across the page; what was signed and is no longer as it was signed says so here.
#let notice-bar = if head.status != "draft" and head.notice != "" {
  let what = if head.status == "amended" [AMENDED] else [OTHER WORDS]
  block(width: 100%, stroke: 1.2pt + ink, inset: 6pt)[
    #box(fill: ink, inset: (x: 5pt, y: 3pt), text(fill: white, weight: 700, size: 8pt, what))
    #h(4pt) #head.notice
  ]
}

// Letters that no font of ours has: what stands in their place, and which they are.
#let missing-bar = if data.missing.len() > 0 {
  block(width: 100%, stroke: 0.8pt + ink, inset: 6pt, text(size: 8.6pt)[
    *¤* stands for letters this paper cannot show: #data.missing.join(", "). Write them in by hand.
  ])
}

#let foot(caution) = context {
  set text(size: 7.2pt, fill: quiet)
  line(length: 100%, stroke: 0.5pt + hair)
  grid(columns: (1fr, auto), column-gutter: 12pt,
    [#caution #linebreak() #if head.signed == none [Not signed.] else [#head.signed.] Read by rules #head.rules.],
    align(bottom)[page #counter(page).display() of #counter(page).final().first()])
}

#let sheet(title, caution, body) = {
  set document(title: title, author: head.clinic, keywords: ())
  set page(paper: paper, margin: (x: 18mm, top: 14mm, bottom: 21mm), footer: foot(caution),
    background: draft-across)
  set text(font: ("Atkinson Hyperlegible Next", "Noto Sans", "Noto Sans Hebrew", "Noto Sans Arabic"),
    size: 9.6pt, fill: ink, lang: "en", hyphenate: false)
  set par(leading: 0.52em, spacing: 0.75em)
  set heading(numbering: none)
  show heading.where(level: 1): set text(size: 15pt)
  show heading.where(level: 2): set text(size: 11pt)
  body
}

#let who = [#head.athlete#if head.born != none [, born #day(head.born)]#if head.age != none [, #head.age years]]
