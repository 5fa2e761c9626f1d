#import "common.typ": *

#show: sheet.with("Letter about " + head.athlete, data.caution)

#grid(columns: (auto, 1fr, auto), column-gutter: 7pt,
  brand,
  [#heading(level: 1, text(size: 11pt, head.clinic)) #text(size: 8.4pt)[#(head.address, if head.phone != "" { "telephone " + head.phone }).filter(each => each != none and each != "").join(" · ")]],
  day(head.date))
#v(8pt)
#notice-bar
#missing-bar
#grid(columns: (1fr, 1fr), column-gutter: 20pt,
  [#text(fill: quiet)[To] #linebreak() *#said(data.to)*],
  [#text(fill: quiet)[About] #linebreak() *#who* #linebreak() #data.about])
#v(4pt)
#block(width: 100%, stroke: (left: 5pt + ink, rest: 1.2pt + ink), inset: 9pt,
  grid(columns: if data.by == none { (1fr,) } else { (1fr, auto) }, column-gutter: 14pt,
    [#text(fill: quiet)[Asked of you] #linebreak() #text(size: 11pt, weight: 700, said(data.asked))
      #if data.sooner != "" [#linebreak() #data.sooner]],
    ..if data.by != none { ([#text(fill: quiet)[By] #linebreak() #text(size: 11pt, weight: 700, day(data.by))],) }))

#said(data.greeting)

== Why
#data.why.join(" ")

== Found #text(size: 9pt, weight: 400, fill: quiet)[findings to weigh, not a diagnosis]
#if data.found.len() == 0 [Nothing was flagged by what was looked at.]
#let shown = data.found.filter(line => line.side != none and figure-of(line.code, line.side) != none)
#let list-of-found = for line in data.found {
  grid(columns: (26pt, 1fr), mark(line.side), [*#line.lead*: #line.says])
}
#if shown.len() == 0 { list-of-found } else {
  grid(columns: (1fr, auto), column-gutter: 12pt, list-of-found,
    stack(spacing: 8pt, ..for line in shown.slice(0, calc.min(2, shown.len())) {
      (figure-of(line.code, line.side, height: 80pt), text(size: 8pt)[#mark(line.side) #value-of(line.code, line.side)])
    }))
}
#if data.more > 0 [#data.more more #if data.more == 1 [finding] else [findings]: in our report.]

== Not done
#if data.not_done.len() == 0 [Nothing that was called for was left out.]
#for each in data.not_done [#each #linebreak()]

== Until then
#said(data.until_then)

#said(data.last)

#v(14pt)
#grid(columns: (1fr, 1fr), column-gutter: 24pt,
  [#if head.signed == none [Not signed] else [*#head.signed*] #line(length: 100%, stroke: 0.6pt + ink) #text(size: 8pt)[#if head.examiner != none [#head.examiner] else [signature]]],
  [– #line(length: 100%, stroke: 0.6pt + ink) #text(size: 8pt)[day and time]])
