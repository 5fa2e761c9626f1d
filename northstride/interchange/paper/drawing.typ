// One drawing, as large as it is.
#set page(width: auto, height: auto, margin: 6pt, fill: white)
#image(bytes(sys.inputs.svg), format: "svg")
