#import "common.typ": *

#show: sheet.with("For " + head.athlete, data.caution)
#set text(size: 11pt)

#let dx-text(x, y, body) = place(dx: x, dy: y, body)
#let numbered(lines) = for (place, line) in lines.enumerate() {
  grid(columns: (22pt, 1fr), column-gutter: 4pt,
    circle(radius: 8pt, fill: ink, align(center + horizon, text(fill: white, weight: 700, size: 9pt)[#(place + 1)])),
    [#line.says #mark(line.side)])
}

// Days from this one to the last that is named; a stretch has both its ends written at them.
#let on(text) = { let parts = text.split("-").map(int); datetime(year: parts.at(0), month: parts.at(1), day: parts.at(2)) }
#let short(when) = [#when.display("[day padding:none]") #months.at(when.month() - 1).slice(0, 3)]
#let strip(days, from) = block(width: 100%, breakable: false, above: 6pt, layout(size => {
  let first = on(from)
  let last = calc.max(13, ..days.map(each => int((on(each.end) - first).days()))) + 1
  let step = if last <= 21 { 1 } else { 7 }
  let x(place) = size.width * place / (last + 1)
  block(width: 100%, height: 20pt + 24pt * days.len(), {
    for place in range(0, last + 1, step: step) {
      let when = first + duration(days: place)
      dx-text(x(place), 0pt, text(size: 8pt, weight: if place == 0 { 700 } else { 400 },
        if step == 1 { when.display("[day padding:none]") } else { short(when) }))
    }
    for (row, each) in days.enumerate() {
      let (start, end) = (on(each.start), on(each.end))
      let (a, b) = (int((start - first).days()), int((end - first).days()) + 1)
      let y = 14pt + 24pt * row
      place(dx: x(a), dy: y, rect(width: calc.max(x(b) - x(a), 4pt), height: 7pt, fill: hair,
        stroke: (left: 2pt + ink, right: 2pt + ink)))
      let says = [*#each.says*, #if start == end [on #short(end)] else [#short(start) to #short(end)]]
      dx-text(calc.min(x(a), size.width - measure(says).width), y + 10pt, text(size: 9pt, says))
    }
  })
}))

#let numbers = data.numbers
#let danger = block(width: 100%, stroke: 2pt + ink, inset: 9pt, breakable: false,
  grid(columns: (1fr, 1fr), column-gutter: 14pt,
    [== Call #if numbers.emergency == "" [the emergency number] else [#numbers.emergency] now if
      #list(..data.call_now)],
    [== Call us the same day if
      #list(..data.call_same_day)
      #if numbers.phone != "" [*#numbers.phone*]#if numbers.night != "" [, at night *#numbers.night*]]))

#grid(columns: (auto, 1fr, auto), column-gutter: 7pt,
  brand, [= #head.athlete, this is what we saw],
  text(size: 9pt)[#day(head.date)#if head.examiner != none [#linebreak()#head.examiner]])
#notice-bar
#missing-bar
#thick

#if data.alone.len() > 0 {
  block(width: 100%, stroke: 3pt + ink, inset: 14pt)[
    #for each in data.alone [#block(below: 8pt, text(size: 17pt, weight: 700, each))]
    #if numbers.emergency != "" [#text(size: 22pt, weight: 700)[Emergency number: #numbers.emergency]]
  ]
} else [
  == What we looked at
  #if data.looked_at.len() == 0 [Nothing was looked at yet.] else [We looked at #data.looked_at.join(", ").]
  #if data.not_yet.len() > 0 [*Not yet:* #data.not_yet.join(", ").]
  #rule
  == What stands out
  #if data.body == "" { numbered(data.stands_out) } else {
    grid(columns: (104pt, 1fr), column-gutter: 14pt,
      [#image(bytes(data.body), format: "svg", height: 150pt,
        alt: "Your legs from the front, as in a mirror, with the numbers of the list beside where they lie.")
        #mark("left") left #h(1fr) right #mark("right")],
      numbered(data.stands_out))
  }
  #rule
  #if data.lines.len() > 0 [
    == How it has changed
    Each dot is one visit. Inside the pale band nothing has changed for sure.
    #over-time()
    #rule
  ]
  == What to do
  #for each in data.to_do [#block(below: 5pt, each)]
  #rule
  == When to come back
  #for each in data.come_back [#block(below: 5pt, each)]
  #if data.days.len() > 0 { strip(data.days, head.date) }
  #v(6pt)
  #danger
]
