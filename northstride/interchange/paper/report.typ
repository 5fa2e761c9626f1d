#import "common.typ": *

#let words(cell, value, side) = {
  if cell.strength != none { block(below: 4pt, tally(cell.strength)) }
  if value != none { block(below: 4pt, text(fill: inks.at(side), weight: 700, value)) }
  for line in cell.lines {
    block(below: 3pt, text(fill: if cell.muted { quiet } else { ink }, line))
  }
}

// Words at the outer edge, the figure beside the spine.
#let lane(row, side) = {
  let (said, drawn) = (words(row.at(side), value-of(row.code, side), side), figure-of(row.code, side))
  if drawn == none { said } else if side == "left" {
    grid(columns: (1fr, auto), column-gutter: 4pt, said, drawn)
  } else {
    grid(columns: (auto, 1fr), column-gutter: 4pt, drawn, said)
  }
}

#show: sheet.with("Report on " + head.athlete, data.caution)

#grid(columns: (auto, 1fr, auto), column-gutter: 7pt, align: (left, left, right),
  brand,
  [= #head.athlete
    #text(size: 8.6pt)[#head.ref#if head.born != none [ · born #day(head.born)]#if head.age != none [ · #head.age years]]],
  text(size: 8.6pt)[*Report, for practitioners* #linebreak() #data.purpose, #day(head.date) #linebreak()
    #head.clinic#if head.examiner != none [, #head.examiner]])
#notice-bar
#missing-bar

#table(
  columns: (1fr, 0.6fr, 1fr),
  stroke: (x, y) => (top: 0.5pt + hair, left: if x > 0 { 0.6pt + ink }),
  inset: (x: 7pt, y: 5pt),
  table.header([#mark("left") left], align(center, text(fill: quiet)[findings to weigh]),
    align(right)[right #mark("right")]),
  ..for row in data.rows {
    (lane(row, "left"),
      align(center)[*#row.name* #for each in row.about [#block(above: 3pt, below: 0pt, text(size: 8pt, each))]],
      lane(row, "right"))
  }
)
#if data.lines.len() > 0 [
  == Over time
  #over-time()
]
#for line in data.whole [#block[*#line.lead*, of no one side: #line.says]]
#if data.sources.len() > 0 [#text(size: 8pt)[*Sources* #data.sources.join(" · "). Published: check before relying.]]

#v(10pt)
#grid(columns: (1fr, 1fr), column-gutter: 24pt,
  [#if head.signed == none [Not signed] else [*#head.signed*] #line(length: 100%, stroke: 0.6pt + ink) #text(size: 8pt)[signature]],
  [– #line(length: 100%, stroke: 0.6pt + ink) #text(size: 8pt)[day]])
