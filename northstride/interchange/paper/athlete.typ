#import "common.typ": *

#show: sheet.with("For " + head.athlete, data.caution)
#set text(size: 11pt)

#let numbered(lines) = for (place, line) in lines.enumerate() {
  grid(columns: (22pt, 1fr), column-gutter: 4pt,
    circle(radius: 8pt, fill: ink, align(center + horizon, text(fill: white, weight: 700, size: 9pt)[#(place + 1)])),
    [#line.says #mark(line.side)])
}

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
  #numbered(data.stands_out)
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
  #v(6pt)
  #danger
]
