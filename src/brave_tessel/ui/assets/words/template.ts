<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" sourcelanguage="en">
 <context>
  <name>Brave Tessel</name>
  <message>
   <source>  no courses to count</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> +{count}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> 1.00 is no rougher than inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> Even it out in Gather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> Pull it there, cover the spot, or widen the overlap.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> The step across the join is rougher than any inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> Things crowd or part at the join: shift the cut or touch it up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> and </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> drawn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> with {count} maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> · Esc stops</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> · alpha {alpha}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source> · here</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>&amp;Edit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>&amp;Help</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>&amp;Job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>&amp;Surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>&amp;View</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>((x − black) / (white − black))^(1/gamma), clipped to [0, 1] (common practice).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, a ramp in between would do</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, against “{names}”</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, as you say</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, channel {channel}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, rough</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, shifted ½</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, size {size_note}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>, {count} cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a crisp edge, 1 a long fade.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a dome, 1 flat on top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a full round back, 1 a flat one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a round tip, 1 a long one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a soft brush, 1 a hard edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a straight slope, 1 a rounded one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 a tent, 1 a flat top with a round edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 at a piece's edge and in joints, 1 at the reach inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 below, 1 above, smooth between.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 domed to the rim, 1 flat on top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 grey, 1 as it is, more is stronger.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 keeps the layer's own colour, 1 takes the mean and spread of what lies beneath.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 leaves the colours, 1 gives every tone the tint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 leaves the light as it fell, 1 takes it out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 leaves the shadow as it fell, 1 lifts it wholly.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 lies flat at its level, 1 follows the ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 mirrors</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 mixes patches softly, 1 lets one win nearly everywhere.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 rounded, 1 a narrow crest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 set in rows, 1 strewn.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 shows 18 % grey as it is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 smooth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 to 1 from one side of each piece to the other; a half in joints.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0 to 1 over the repeat; for what differs from foot to head.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>0.5 flat, above it ridges and edges, below it hollows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1  Even out light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1  Gather: drop a photo, drag the frame's corners onto something rectangular, type its width.
2  Repeat: widen the overlap until the cut is quiet, then make a surface of it.
3  Build: lay on a pattern or noise; say where it lies and how it sits.
4  Place: add pieces or a model, drag surfaces onto their faces; pick the datum.
5  Hand over: read the checks, choose sizes and depths, write the files.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 at the edge of each piece and in joints, 0 where the rim ends inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 at the mask's edge, falling to 0 at the reach; Euclidean and wrapped.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 corner on an open side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 euro coin</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 face turned round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 face without area</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 hole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 in joints, 0 on pieces, one pixel soft.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is as in nature, 0 puts it out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is as in nature.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is as in the file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is the first of January.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is true size; 2 is twice as large.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is true; whole courses fit a height by it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 is true; whole units fit a run by it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 leaves it, 0 is grey.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 less the field.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 matt</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 mixes far round the edges, 32 in a narrow band.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 on picked pieces, 0 elsewhere; edges one pixel soft.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 rough</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 to 16 sizes, with commas between, as in 400×200, 200×200</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 to {max_px} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 where the colour is like another.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1 where the upper height is higher, 0 where the lower is; a mask for colours that go with them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1.00 is no rougher than inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>1.75 m, 1.2 m, or as tall as is typed.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>12 patches that are not too bright</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>15 to 70°</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>16</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>16 bit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>16 bits</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>180</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>2  Choose the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>2 px or more a side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>2 to 16 colours as #RRGGBB, with commas between</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>2 to {most_stops}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>24 known patches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>24 known patches within the corners</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>270</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>3  Mend the seams</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>4  Touch up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>4 to 2000 mm, as on 36 × 24 mm film</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>45</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>5  Break the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>8</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>8 bit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>8 to 12</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>8*(150 + 3), or 1224 mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>8: upright edges of two kinds and two insides. 16: all edges of two kinds.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>90</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A  cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A band lies within its surface, its lower edge under its upper one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A band over the whole sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A block with worn edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A broken flake with straight sides.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A clear lacquer over everything.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A colour it is tinted with.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A colour that is only colour and no relief, such as a stain or moss.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A corrugated sheet's height in mm about 0: a sine of a pitch and depth, such as 76/18.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A datum of its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A day with sun: the clear sky of Preetham (1999) with broken clouds, and roofs on the horizon.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A drawing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A drawing for the inscription</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A field in [0, 1] as height in mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A first, rough look; the meters follow.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A flat pier against a wall that stands at y = 0, its middle at the origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A flat rectangular piece with rounded edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A folder of kits</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A further folder of kits</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A further map of this source: normal, height, roughness and so on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A gable or an arched head rises over the height.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A gathered picture repeated along the run; where its relief is neutral is found from its rim.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A gathered picture that has its real size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A hanging cloth, its upper edge from the origin to the right; its unwrap is the cloth laid flat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A larger repeat holds more of everything; strokes and runs stay where they are</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A larger sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A larger sheet in which the cell is laid over itself at random; colours and heights keep their spread.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A layer beneath this one whose recipe has pieces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A layer beneath this one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A leaf along the rectangle's width, tip to the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A linked file is missing; its last pixels are used. Find it again in Gather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A locked layer is not moved, taken out or painted on (L)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A long, narrow face with sharp edges: its mirror image shows every unevenness of a gloss.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A low wall along its path, weathered on top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A map of a gathered source's closed sheet, laid in whole repeats.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A mask with a slope inside its edge: 0 outside, 1 from the width inward.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A mask with its edge moved.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A moulding of one section along the whole run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A net of cracks, in [0, 1], 1 in the crack: the borders of strewn cells, bent, of changing width, with finer ones between.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A new sheet of any size from patches of this one, laid so that it wraps.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A new sheet of pieces, strewn or laid by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A new surface whose repeat is this sheet; goes on to Build</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A new surface: empty, of rectangular units, or of a stock recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A photo with a chart in the same light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A picture of the whole sky</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A picture without a beat needs no lining up; if its rows lean, use whole courses.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A precast one has 125.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A recipe from a JSON file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A repeat is longer than nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A round bar or pipe along its path.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A rounded stone.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A row of half balls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A rule of {name} is hidden: the {name_2} it looks at is not here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A seam shows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A second one beside it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A sewn line: threads that come up, lie, and go down into puckered holes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A shipped or an installed font.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A size in pixels, as in 900x600, 16 to 16384 each way.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A slab whose surface is at the height of its origin, over a rectangle or a drawn outline.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A slab whose underside is at the height of its origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A small glowing ball that shines to all sides and throws shadows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A small model, seen from above</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A small model…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A smooth curve through 0, three points and 1, monotone between them (Fritsch and Carlson 1980).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A smooth curve through its points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source has no size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source is missing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source is stretched</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source or a recipe whose lightness is the tip; none is round.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source that has its real size: its width goes along the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source whose lightness is the shape of the brush</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A source with an ID map, or any picture in flat colours.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A straight lens again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A strip along its path, highest in the middle; its edges are at the height of the path.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A thing of known size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A typed white point.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A white cloth lit from behind: a broad, even face with soft edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A whole repeat along the face is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>A4 sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About Brave Tessel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About an upright line, each turned with it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About its own mean: below 1 flatter, above 1 stronger.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About the upright axis through its origin, from east round by north.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>About the upright through its own origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Above</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Above 0 longer along the run, below 0 across it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Above 0 parts narrower than twice this go; below 0 gaps narrower than that close.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Above 1 brightens the middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Above its underside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Across its springing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Across.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Across; a handrail has about 45.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add --force.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a folder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a folder of map sets</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a folder of map sets, or of frames with a light file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a kind</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a kind of piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a kind of piece first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a kind of piece in the card.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a lamp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a map…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a photo, or drop one on the window.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a picture in Gather first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a piece, put up a scene or open a model; then click a part of it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a point</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add a step: type what you need, such as cracks or blur</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add an opening</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add pictures</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add pictures…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add the picture again.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add to the scene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add {count} maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Adjust</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>After another layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>After how much along a row the pattern is itself again; found by the button.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>After how much up the wall the pattern is itself again, such as two courses of half bond.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Afternoon</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Against the sample's truth: normals {angle:.1f}° off on average, albedo {albedo:.1%}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>All frames taken</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>All maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>All-round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along a line</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along a path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along an edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along its axis.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along its foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along its path, its back on the path, its joints cut on the half angle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along its path, its face towards the road at the right of the path.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along its upper edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along the cut {along:.2f}, worst at {x:.0f}, {y:.0f} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along the joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along the part itself</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along the path by its arc length; up is away from it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along the wall.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along which it is brushed, from the right anticlockwise.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along x, over the walls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along x.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along x; a drawn outline has its own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along y, over the walls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along y.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along y; a drawn outline has its own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Along × up, mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Amount</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>An SVG</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>An SVG, or a cut-out picture whose shape is used</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>An own picture of the whole sky, HDR or EXR, north in its middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Angle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Anisotropy</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Anisotropy angle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another operation in its place; what fits is kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another patch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another patch of {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another picture of the same patch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another picture of the same patch, under other light: highlights and cast shadows are lessened</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another picture…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another seat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another stamp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Anticlockwise, in degrees; other turns would not close.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Arch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Arithmetic</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Around</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As everywhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As it came</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As it lies: {count:g} whole of {size} mm, none cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As it lies: {count:g} whole of {size} mm; {rest}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As many whole repeats as bring it nearest to its real size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As needed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As seen now</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As the measured line</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As the picture tells</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ashlar without courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At an upright corner: on round it, anew with a whole unit or half of one, or mirrored.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At its own size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At the corners</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At the {way}: {reasons}. Worst at {x:.0f}, {y:.0f} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At what size it is judged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At {x}, {y}, {z} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Axis</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>BS 4662</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>BS 4787-1</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>BS EN 1339</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>BS EN 771-1, UK work size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>BS EN 771-3, UK practice</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Back to the card (Ctrl+L)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Back to the layers (Esc)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Back to where it was</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ball</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Band</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Band {number}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bands</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bands of the surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bank card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bare. Drag a surface onto it, or click one in the list.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Barrel vault</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base and capital included.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base colour is plausible</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base colour kept within what real materials reflect (common practice).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Base colour too {value}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Basketweave</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Beading</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bearing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Below</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Below a half flattens the middle, above it flattens the ends.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Below its surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bend</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Beside</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Best cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between its edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between its jambs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between its springings.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between stops in light, in sRGB codes, or in even steps for the eye (OKLab).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between two heights of what lies beneath, mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Between two slopes of what lies beneath, in degrees from flat; only those that fall one way, if wanted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bevel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bias</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bilateral filter (Tomasi and Manduchi 1998), at a reduced size where the radius is many pixels.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Billows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bits of {value}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Black</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Black, middle and white</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blend</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blend colours</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blend patches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Block</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Block, face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blocks in a row, as beneath a cornice.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blocks of units lying and standing by turns; the repeat is 2L × 2L.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blotches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blur</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blur and sharpen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blur that does not pass from one piece into another: nearer the edge it reaches less far.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blur within pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Board</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Board of surfaces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Boards side by side whose ends are staggered at random; boards longer than the repeat run through it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Boards without ends, groove beside groove.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bodies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bond</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Both joins look as the inside does. 1.00 is no rougher than inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Box</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Box blur</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Branches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brave Tessel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brave Tessel jobs (*.tessel)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brave Tessel {version}
GPL-3.0-or-later. IBM Plex (OFL-1.1), Tabler Icons (MIT).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Break the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Break the repeat another way</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brick</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brick, face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brightest against darkest, before the cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bring a model into a job's scene and say what came.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bring the light back that a cast shadow lacks, told by two places of the same stuff; places are shares of the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brings its colour to what lies beneath; how far is under Tone match</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broad</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broad flakes or long ones.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broad weight</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broadest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broadest features, crest to crest; snapped so that whole ones fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broadest patches, crest to crest; snapped so that whole patches fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broken</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Broken flags with straight sides, of very different sizes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brush</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Brush on {label}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Build</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Build-up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bulb</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bundle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bundle layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bundle the chosen layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bundle, copy, solo, lock</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By ID colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By angle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By focal length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By height: it shows where it is higher. Over: it shows wherever it is covered</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By normals</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By slope</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By the chart of {chart}: colours are off by ΔE {mean} on average, {worst} at most; {before} before, with the exposure right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By the unwrap that came with the model or was made with the piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>By whose radius it is laid: both sides of a thick round wall differ.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bypass</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bypass a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Calibrate by the chart</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Camber</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Capital</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Caption and scale bar</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Card reflectance</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Carry</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cast shadow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Catalogue</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ceiling</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cell</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cells</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cells whose edges are of two kinds, laid where edges of one kind meet: neither edges nor insides come in rows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chain link</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chamfer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change a piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change a stroke</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the delivery</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the laying</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the model's unit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the opening</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change the {name} map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Change {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Changed on disk</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Changing hall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Channel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Check every surface of a job; exit 1 where something is broken.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Check that you may read it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Check the scene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Checks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Checks of the scene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chequer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chipped edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a folder and write the files (Ctrl+E)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a lower density or a smaller sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a part first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a part with a surface first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a simpler file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a smaller block or overlap.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a smaller overlap, or more periods.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a smaller sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a smaller size, or close what else needs memory.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a source or a recipe in the card.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a source that has its real size; give it one in Gather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose a tube, a strip or a moulding with two ends.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose an equirectangular HDR or EXR picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose another file; this one is empty.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose another folder.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose another one, or install it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose the layers to merge, with Ctrl or Shift.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Choose the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chosen piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chosen place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clamp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clear</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clear sky</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click a colour of the model; Shift+click gives it to bare faces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click a colour to copy its code</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click a piece laid by hand. Drag moves it, Shift-drag copies it, arrows nudge it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click a place in the light, then the same stuff in the shadow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click a place in the light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click an edge of the chosen part.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click an edge; the line goes on as far as the edge does.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click faces of the model; Shift adds, Ctrl takes away, + and − grow and shrink.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click it on the model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click its points on the model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click on the chosen wall.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click point after point; Enter ends, the first point again closes it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click something on the photo that is really grey or white.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click something there that is really neutral</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click the board: the ID colour under the pointer is covered; Esc ends.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click the model where each corner belongs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click the points of the model that the picture's corners are held to.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click the same stuff in the shadow.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click the wall where it goes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click to add a colour, drag to move it, double-click to pick it, drag it down to take it out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click two points; they snap to corners, edges and levels.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click what shall show as 18 % grey</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click what shall show as 18 % grey · Esc leaves it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click where it stands: {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click where pieces should lie; Esc ends it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click where the laying starts; it snaps to corners, edges and levels.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Click within the frame.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cling</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close it by whole courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close it up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close the opening</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Closed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Closes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Closes best</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Closes in {count} whole repeats, {told}; {size} fits.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Closes on itself</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cloth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cloth to each length of the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cloud size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clouds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clouds whose places are moved by two other clouds: marbled, folded shapes in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coat normal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coat roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cobbles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coin of 1 euro</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour chart</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of a source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of each piece about a mean, and of the joint; linear light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the ground between the pieces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the layer.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the ramp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour of what is cut, where it is painted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour that is painted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour the faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour towards the rim.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour where the field is 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colour where the field is 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colours</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colours as the photo has them</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colours of {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Colours that are covered; pick them on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Column</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Columns</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Combine</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Combine normals</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Combines by</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Compare by</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Compare no longer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Compare with a kept state…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Compare with the next chosen step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Connected</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Contact sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Contrast</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copies and edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copies are turned by up to this much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copies of the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coping</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copy</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copy a band</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copy layers, or the step with what it needs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Corners</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Corners of a polygon or points of a star.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Corners of its outline.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Corrugation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Count</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Count a part's courses and units, and write its setting-out sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Counting courses…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Course</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Course {mm} mm, joint {joint} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Courses of {surface} on {one} and {other} are {mm:.1f} mm apart where they meet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Courses of {surface} on {part} lie {mm:.0f} mm off the datum.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Courses, cuts, dimensions and schedule, on paper</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cover</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cover a {word} spot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cover from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cover it in step 5, or break the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cover the chosen spot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered as the opacity of a recipe of its own says.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered at {x_mm:.0f}, {y_mm:.0f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered from this height of the ground upward.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered from this slope.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered spots</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered up to this height of the ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered up to this slope.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covered where it is painted; its strokes lie with the rule.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Covers it from elsewhere in the sheet; a click on its mark does the same</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cracks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Crazed glazed tiles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Crazy paving</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Crest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Crest to crest; snapped so that whole waves fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Crisp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cross-section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Curl</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Curled fibres lying over each other, in [0, 1]; their value is how high they lie.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Curvature</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Curve</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Curved wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cushion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut bands</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut from {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut it from the scan first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut off below and above.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cut to whole courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>DIAL=VALUE</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>DIN 18101</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dado</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Damaged or missing in the file: {names}. Add it again; all else is as it was.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Damp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Damp halo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Damp rising from the foot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dark</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dark is high</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dark x</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dark y</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Darkest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Datum ignored</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Datum: {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Day of the year</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Decal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Decals</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Deep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Del in the list</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Delivery</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Density</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Density steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dentils</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Depth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Depth at which two thirds of what lies in it are hidden by its colour.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Depth of the ring, soffit to back.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Detail normals on base normals (Barré-Brisebois and Hill 2012, "Blending in Detail").</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dials</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dials on the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Diameter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dimension line</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Directional blur</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Directions</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance between dabs along the stroke; 0 is without a break.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of the rectangle from the sheet's left edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of the rectangle from the sheet's lower edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of the seams; snapped so that whole bays fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of the streaks, crest to crest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of the strokes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of two holes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of two octagons' middles.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of two studs.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance of two threads.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance to</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance to a mask</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distance to the edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Distances to strewn points in cell widths, in [0, 1] (Worley, "A cellular texture basis function", 1996).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Divide out broad drift of colour in linear light, and of contrast; the mean colour stays.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dome</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dome of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Done</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Done: {samples} samples.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Door</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Door leaf, imperial</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Door leaf, metric</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Door opening, DIN</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dots strewn evenly, none nearer to another than the spacing, in [0, 1] (blue noise; dart throwing, Cook 1986).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a cut on the cell to pull it through a place.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a line across the colours you want.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a line across the picture: its colours in order</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a point, click a side to add one, press Delete to take it out; arrows move by 1 mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a rectangle over the colours you want.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag a rectangle: its dominant colours, darkest first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag along a cast shadow, from what throws it to its tip.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag along what lies under the stroke.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag from end to end of an edge that should be straight, then pull the middle onto it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag it on the board; corners size it, with Shift unequally, the knob turns it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag its points on the board; click the run to add one, Del takes the chosen one out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag its sides back onto the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag on the photo from what throws a shadow to its tip: that tells where the light came from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag on the strip to cut a band.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag over something whose length you know (D)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag over something whose length you know, then type the length.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag the cell, or nudge it with the arrows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag the corners so that the frame has four sides that do not cross.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag the frame's corners onto something rectangular, then type its size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag the piece to where it should lie.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drag to look around; W, A, S and D walk, Page Up and Down rise and sink.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drape</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw a dimension line</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw a dimension line first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw along a cast shadow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw along a straight edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw along an edge further out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw its path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw round a piece, then drag it to its place. [ and ] turn it, Enter lets it be, Esc takes it back.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw the path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw the profile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Draw the sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drawing from a file…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drawings ({suffixes})</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drawings and cut-outs (*.svg *.png *.tif *.tiff)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drawing…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dried runs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drift broader than this is taken for light, finer detail for surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drift downhill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drips</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drop a photo here, or add one at the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drop {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drops run downhill on the wrapped sheet, take stuff up where it is steep and set it down where it is flat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dry tips</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate the chosen layers (Ctrl+D)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate the layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate the step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate the step (Ctrl+D)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Duplicate {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dust</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dust in hollows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>EN 13698-1</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>EU regulation on coins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each click on the sheet lays a piece of the chosen kind; a double click does too</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each face takes the surface from the side it looks to, at true size on faces that lie square.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each piece a plane that leans its own way, in [0, 1], a half at its middle and in joints.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each piece rounded like a stone, in [0, 1]; 0 in joints.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each piece takes one at random.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Each piece turned, shrunk and moved a little within its joints; where two meet the deeper one lies over the other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>East</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>East front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>East wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Eaves</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edge kinds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edge round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edges worn, hollows grimed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Edging</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Elevation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Elevation, unrolled</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Emission</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Empty</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Empty: drag layers onto its row.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ends after the file being written; none is left half</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ends the taking; nothing is added (Esc)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Equalise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Erase</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Estimates from a picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even clouds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even dots</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even out light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even steps of a field in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even strokes side by side, as of a comb or a trowel, in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Even the sides</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every band cut from the surfaces, packed and named</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every grain a random value in [0, 1], none like its neighbour.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every length of every layer grows along, in relief as well</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every map of the sheet, each variant, or the atlas of its cells, as files with their real size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every missing file that lies in a folder or below it is found by its name</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every piece one colour of a ramp; edges one pixel soft.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every source lies at its own scale.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every surface of the job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Every value as often as every other: each becomes its share of the sheet that is lower.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Everywhere but there.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Export the recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Export…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Expose</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Expose for a point</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Expose for a point…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Exposure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Exposure (EV 100)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Exposure and white</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Extent</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Eye</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Face height of a unit without its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Face length of a unit without its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Face width of a board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Faces swell by this much toward their middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Faces without a surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Facets</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Facing a side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fade</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fan of setts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Feather</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Features keep their mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Features scale with it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Features that stand out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Feed a map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Feeds {names}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fetch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fetch again: it goes on from there.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fetch it again.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fetched into your library.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fetching…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fewer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fibre</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fibres</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Field</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Field 3×3</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Figure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Figure 1.75 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Files</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Files to be written</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fill holes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Filling</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find a set</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find it on the photo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find its path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find the beat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find the beat first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find the best</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Find the missing file…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Finds by itself where to take from.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Finds by itself where to take from; T over a place takes from there. [ and ] size the brush.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Finds the beat of a regular pattern and cuts to whole units of it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fine</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fine part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fine scratches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fine scratches of different depth, in [0, 1]; 0 between them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Finest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fingerprints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Finishes too</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>First steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fish scales</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fit the courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fit the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fit the repeat to whole units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Flakes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Flat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Flat flakes lying over each other, in [0, 1]; their value is how high they lie, 0 between them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Flat pallet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Floor</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Floor or slab</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Floors and steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Flow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Focal length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fold</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fold the {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Folder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Folder for the pictures</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Folder…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Folds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Follow its file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Follow the file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Follows gaps between stones: the sheet closes along the paths where its sides differ least.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Follows its file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Font</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>For one material under a low light: what faces the light is bright, and its height follows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>For scale</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>For the whole scene; it snaps to corners, edges and levels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>For this surface alone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Form</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Four or more points of the picture are held to points of the model, true in perspective; the surface fills the rest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fractal gradient noise in [0, 1], mean 0.5.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fractal gradient noise on a triangular lattice, in [0, 1], mean 0.5: like clouds, without their slight lean to level and upright (after Perlin's simplex noise, 2001).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fractal value noise in [0, 1]: random values of a lattice, joined smoothly (Perlin 2002's fade).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Frame a larger part of the photo.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Frames</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Frames agree to {mean:.0%}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Frames of the light rig</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Free some space or choose another disk.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From 0 to 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From an area</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From another photo…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From depth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From each point to the next by the joints of what lies beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From elsewhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From end to end, then pull its middle onto the edge: the lens follows. More edges make it surer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From foot to top at its ends.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From foot to top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From front to back.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From north by east: 90 is east, 180 south. Walls are seen looking south.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From nothing to all between two points, and back again where the sheet closes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From one to the next, along x.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From one to the next, along y.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From one to the next, upward.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From one to the next; adjusted so that whole steps fill the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From side to side.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From sill to crown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From springing to crown.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the bottom to the crest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the first round to the next after the last.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the foot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the lower layer of the bundle, at 0, to the upper one, at 1; both whole in the middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the surface's lower edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the wall's left end to its left jamb</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Fullness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gain and bias</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gamma</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between boards.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between courses; 0 is the same as between units.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between flags.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between neighbours.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between scales.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between stones.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gap between units.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gaps inside a mask that are smaller than a width are filled.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gather</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gather {count} sets</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gaussian blur whose standard deviation is half the radius.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Girth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Give --size, or --unit for whole courses.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Give a sheet a mean colour while its tonal variation stays.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Give four corners.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Give it a name that ends in .png or .exr.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Give the straightening frame its real size in Gather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gives the surface the nearest repeat on which the pattern closes as it is asked</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Glossiness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Go back to {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Go on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Go to that surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Goes to that step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Going</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gradient</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gradient across pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gradient of place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Grain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Green inverted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Green {green}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Green {green} of {file_name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Grime</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Groin vault</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ground</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ground roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Group</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Group the parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Group the pictures of a folder into map sets, tell of its meshes and frames, say what each is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Grow or shrink</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Half resolution</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hand over</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hand over into</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hand over…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Handfuls of rules; once added they are plain rules</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Handle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Handles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hardness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hatch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hatching</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Haze</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Head</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Headlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Heal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height from the field's 0 to its 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height from the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height gain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height in mm about 0 from lightness in three bands of wavelength; an estimate, mean 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height in mm of the layers beneath this one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height in mm: faces about 0, joints at −depth, quarter-round edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height lines</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a normal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a piece of this kind, along the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a row of units of random length, found by the button: its lengths are cut at a joint. 0 cuts anywhere.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a seam.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a stud.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a wider foot; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of a wider head; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of its surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of ripples.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the coping; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the field from 0 to 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the field from 0 to 1; 1 for a height in mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the font's em.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the grain on its face.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the lights</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the lintel or arch ring on the front; 0 is none</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the lower band of the front, a face of its own; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the new sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the rectangle; the repeat is smaller by the overlap.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the relief, from its low to its high parts.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height of the sheet; pieces cross its edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height over which layer and ground mix; 0 is a hard edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height over which the cover fades at either limit.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Height, on the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Heights</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Herringbone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Herringbone of whole units.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hexagons</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hexagons standing on a point; the repeat is W × √3 W (W over the flats).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hide a layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hide a rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hide or show</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hide or show the parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hide the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>High</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Higher is darker.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Holds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Holes up to this width are filled.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hollows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hours of the day</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How bright a matte relief is under one light: the cosine to it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How bright light bends into white.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How broadly both places are read: a few units or stones.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How courses are set against each other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How deep a hollow lies beneath its neighbourhood where it is fully covered.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How deep a hollow must be to be covered at all.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How deep it is cut at most, or how high it stands.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How detail is laid on the base.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How distance is measured: circles, diamonds, squares, or squares with round corners.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a crack turns at every step.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a fibre curls from end to end.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a gable or an arched head rises.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a gloss is drawn out, as on brushed metal.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a mask's edge moves out; below 0 it moves in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a relief looks to one side: 0.5 where it is flat, 1 steeply to it, 0 steeply away.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a run strays from straight down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a scratch bends from end to end.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a sill slab stands out of the front; 0 is none</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far a slate covers the second one below it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far an edge stands over its neighbourhood where it is fully covered.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far aside one looks from: a gloss mirrors another part of the sky.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far contrast that drifts is brought alike too, as on a side that a lamp washes out. As needed: only where it fades with the light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far copies vary in size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far corners and edges are chipped away.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far corners are rounded off.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far courses differ in height.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far cracks leave a straight line.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far detail is raised.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far detail is raised; below 0 it is softened.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far down the guide's slope it looks.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far each lies aslant.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far each piece's picture is turned at its middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far edges are steepened.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far foot and head stand out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far from it still counts (CIELAB).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far from such a colour still counts.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far from that colour is left out too; 0 leaves out nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far in the face still rises.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far in the slope goes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it goes down below the road.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it hangs down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it is drawn along the relief it lies on.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it is smeared.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it leans from the upright.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it leans.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it lies above what is beneath it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it must stand out to be covered at all.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it raises or lowers, in mm; or the roughness it sets.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it reaches.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it stands out of the wall.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it stands out over the walls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it stands.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far it takes the tint; its light and dark stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its arrises are worn round.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its edge is blurred.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its edge moves out; below 0 it moves in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its relief is stretched about its own mean.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its tone varies.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far its top stands out at the front, as a seat or coping does.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far lighter parts are rougher; below 0 they are smoother.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far neighbours shade.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far pieces are turned either way.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far pieces differ in height.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far pieces differ.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far pieces lean at most.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far places are moved by other clouds before they are read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far places move where the guide is steepest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far places move where the second field is 1; at a half they stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far round it goes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far single pieces stray.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far single strokes stray from it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far sizes vary.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the colour of each piece is its own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the coping stands out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the cover of single pieces varies.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the cut is painted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the damp ground drinks: darker and smoother with it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the deepest chips reach in from the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the ends draw the ground in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the fibres stand apart.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the folds open towards the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the guide is softened first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the joint lies below the faces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the middle rises over the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the outline leaves an ellipse.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the piece is turned, anticlockwise; [ and ] on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the rows are turned on the photo; taken out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the sheet is moved on itself.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the tones vary about the tint; 1 as on the picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the upper one is raised first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the upper one shows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the uprights lean on the photo; taken out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the whole edge is worn uneven.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far the width varies along a crack; at 1 parts close altogether.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far their distances vary.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far their lower edges vary.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far their ways stray; 90 runs every way.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far they are broken up inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far they stray from it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far to the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far treads stand out over their risers.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far window frames and doors stand behind the front.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How far.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How fast it sets down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How fast it takes up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How fast power falls with frequency: 0 white, 2 like terrain, 4 very smooth.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How finely the preview is sampled; the job itself has no resolution</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high above the water the ground is damp.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high it stands, seen from what is lit.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high it stands.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high roofs and trees stand on it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high the layer lies: above 0 it rides on the ground, below 0 it sits in its hollows.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high the light stood over the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high the piece rises.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How high the rim curls up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How it sits</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How large each piece is against the largest, in [0, 1]; 0 in joints.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How large the clouds are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How light becomes a picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How long it slides.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How long one whole sheet of the unwrap is; 0 makes it true on average.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How long what is picked up is carried along.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many branches leave each crack.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many cells high the new repeat is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many cells wide the new repeat is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many cells wide the new repeat is; 1 by 1 leaves the cell as it is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many cracks run over the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many finer cracks run between the broad ones.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many flats it is made of.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many folds it falls in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many lights, one frame each.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many of the worst spots along the cuts are covered from elsewhere in the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many pieces; 0 strews none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many places on the way are read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many rises.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many sheets that share their edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many stand in the ring, the first counted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many stand in the row, the first counted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many there are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times finer features are added, each half the size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times finer patches are added, each half the size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times it is repeated across.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times it is repeated up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times it is set; the first where it was put, the others strewn.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many times stones are moved apart, which makes them more alike.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many tones are left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How many units lie side by side in a block.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much a drop can carry.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much a whole stroke counts.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much colour counts when the cut is judged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much each stamp counts; less builds up slowly.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much fine relief beneath still reads through it, where it drapes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much light comes through scattered, as through a leaf or wax.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much light goes straight through, as through glass.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much lighter or darker single pieces are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much lighter where the field is 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of each piece lies below the ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of it a stroke lays down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of its broad shapes is kept.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of its fine relief is kept.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of its rim fades out across the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of its rim fades out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of the fine grain becomes relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of the sky broken clouds cover.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of the sky is seen, cosine-weighted, by horizons in eight directions.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of the slow difference between the sides is taken out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much rain falls, in drops per working pixel.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much relief counts when the cut is judged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much shapes between broad and fine count.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much single yarns show.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much the broad shapes count.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much the higher of two surfaces wins where they meet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much the hue of single pieces strays.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much the rule counts.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much the shaft thins towards its top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much warmer where the field is 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How narrow the crests are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How often a decal is set, how its copies differ, how it lies on relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How often strokes are repeated across, with the pattern.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How often strokes are repeated up, with the pattern.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How often strokes are turned round the middle of the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How ragged the edge is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How soft its edge is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How soft its edges are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How soft the way from one tone to the next is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How soft their rims are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How softly one side gives way to the next on round faces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How something that is really grey or white looks on the photo; picked on it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How steep a relief is: 0 where it is flat, 1 at the steepest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How steeply the sides fall to the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How steeply the strands cross it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How strongly it lies over the board</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How strongly, from 0 to 100 %</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How the run ends: free, back where it began, or over the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How the upper one is laid on the lower.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How the {name} map is laid on what lies beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How threads pass over each other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How uneven the clouds are.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How wide the shapes are that count.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How wide the sloping part is, from the edge inward.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hue</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Hue, saturation, lightness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>IBM Plex Mono</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>IBM Plex Sans</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>IBM Plex Sans SemiBold</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ID-1 card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ISO 216</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ISO/IEC 7810</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ISO/IEC 7810, ID-1</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Idle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>If this photo was cut from a larger one, its middle lies {way} and the proportion may be off by {share} %: type the focal length or the proportion.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Illuminance.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Import a recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Import…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In mm, as on 36 × 24 mm film, where you know it; empty takes the file's, or what the view tells.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In place of their map set</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In turn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Indoors: walls, a pale ceiling and a dark floor, dimly lit by what the lamps leave; the lamps do the work.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Inscription</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Inscriptions</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Into</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Into your library; goes on where it broke off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Invert</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Irregular</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Isolate</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Isolate the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Isolate the parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It closes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It comes with the source.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It hardly stands out from the stuff's own tones: nothing is lifted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It has no {what} here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It is a group; name one of the parts in it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It is a…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It is broken across only: break it upwards too.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It is broken upwards only: break it across too.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It is not a format this program reads; save it as PNG or TIFF.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It was made by another version; it is kept in the job unchanged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It was made by another version; it is kept unchanged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>It was stopped before there was anything to see.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its colour temperature.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its colour where it is deep.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its colour.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its cross-section, from the list or a drawn one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its crossfall; 0.025 is usual.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its edge towards the road.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its handles are on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its height.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its layers in its place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its length.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its neutral level is being found from its rim.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its neutral level is {level} mm, found from its rim; no step shows there.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its path is {length} long; its faces are {radius:.1f} mm from it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its picture is damaged or missing in the job file. Add the picture again.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its real length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its relief goes in where it came out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its relief is multiplied by this.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its source is gone.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its steps, one by one (E)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its width across the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its width.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Its {size} are laid as {size_2}: {errors}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Jitter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Join by height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Join channels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Joint</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Joint about {joint_mm:.1f} mm; {turned}; echo {strength:.2f}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Joint colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Joints miss at a corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_anisotropy</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_clearcoat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_ior</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_sheen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_specular</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_transmission</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_materials_unlit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_mesh_quantization</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>KHR_texture_transform</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep and compare</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep both</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep by size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep layers as a kit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep layers as a kit…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep plausible</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the colours of {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the light {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the pixels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep the view's proportion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep this light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep this light…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep this view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keep {name} as it is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kept as {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kept lights</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kept with the job: compare it with what you do now; K ends that.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kerb</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Keystone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kind</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kind ID</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kind of sky</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kinds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kinds of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kits, recipes, surfaces, marks of use (Ctrl+L)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Knitted cloth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Known object</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Known proportion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laid</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laid after all others (Page up)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laid in the sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lamp out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lamp-lit hall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lamps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Largest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Latitude</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lattice across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lattice up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay a piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay a surface on a part of a job's scene.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay along the path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay another layer on the chosen one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay at its own size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay down a colour, or a plain value on other maps.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay down the detail of another place, and the tone of this one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay down what lies at another place of the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay it at true size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay on the bare faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay on the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay on top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay on {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay something on at the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay something on first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay the part's first surface on them</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lay {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Layers, top to bottom</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laying</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laying a layer in its sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Laying: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Layings</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lays it the other way round, left for right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lays the chosen one on the chosen layer; or drag it on the board or between the layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leaf</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lean</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lean east</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lean north</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lean of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leans towards</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Least</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Least distance of two dots.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Least distance of two middles, in widths of a piece; 0 is without regard.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Least roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave it empty to take it from the view.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave it empty to take the file's, or the view's.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave out reach</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave the tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Leave the {name} map as it is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Left and right of the piece change places before it is turned.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Left for right; lettering on it stays readable</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Left list</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Length of a unit with its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Length of a unit without its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Length of a whole repeat along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Length of the drawn line; sets the size of the whole frame.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lens</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let a kept state go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let a step work again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let courses fit between two levels, or list the ways.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let go of the chosen stroke</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let it go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let the calibration go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let the cut go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let the light go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let the pulled cut go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let the repeat be</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Let {name} go</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lettering on the wrapped sheet: 1 inside, 0 outside, or rising from the edge over the bevel.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Library</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lift a cast shadow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light (Ctrl+J); the right mouse button turns it in every picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light bearing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light drift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light it gives by itself; white is 1 000 cd/m².</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light it gives in all.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light of fine fibres, as on velvet and felt; black is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light on the walls</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light rig</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light rig (simulated)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light with layers (*.exr)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lighter and warmer where a field is high, darker and cooler where it is low; a half leaves it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lighter or darker.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lightest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lighting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lightness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Limewash on render</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Line up the overlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Link repeats</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Linked</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lintel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>List stock recipes, or write the maps of one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>List surfaces, layers and parts of a job.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lit from a side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lit from one side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lit x</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lit y</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Loader</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Local solar time.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock a layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock or unlock</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock or unlock the parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lock the proportion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Locked</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Longest waves.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Look</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Look in a folder for all missing files</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Look in a folder for all…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Look of a layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Looking for sides that agree…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Looking for the beat…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Looking it through…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Looks for a chart of 24 patches and makes the colours true</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Loop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Loose stuff slides until nothing is steeper than its angle of rest (thermal erosion after Musgrave et al. 1989).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Loud spots</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Loudest: a {tone} spot at {x:.0f}, {y:.0f} mm, again every {far:.0f} mm {way}. {advice}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Low</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Low sun, raking</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Lying on the floor.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made by another version.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made by numbers, cut from a source, or a small model seen from above</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made from nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made from, {slot}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Made pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make a photo tile and write its maps.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make a step from another</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make a still of the scene or of a surface, by light paths.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make a surface of it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make the repeat {size}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Make {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Makes the overlap so wide that whole units are left, and keeps the best cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Map of a source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Map set</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Map {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Maps (.png)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Maps and their steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Marks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Marks of use</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mask</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mask of a colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Match a colour's spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Match histogram</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Match its colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean along a line.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean and spread of the layer's colour within a radius brought to those beneath (Reinhard et al. 2001, locally, in OKLab).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean and spread of the second in CIELAB given to the first (Reinhard et al. 2001, in OKLab).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean colour of the pieces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean distance of the cracks.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean height of a course.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a crack.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a fibre.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a scratch.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a smudge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a stone, in heights.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean length of a stroke.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean of a square of twice the radius, its rim weighed by how much of a pixel lies in it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean roughness.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean size of the flags; snapped so that whole flags fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean spacing of the points; snapped so that whole cells fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean spacing of the stones; snapped so that whole stones fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean width of a flake.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mean width of a spot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Measure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Measured. Type the real one to size the whole sheet by it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Measured. Type the real one, such as 75, to size the whole sheet by it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Measures the beat, and cuts to it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Measures units and courses on the straightened sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Median</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Meeting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Meets what lies beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend another way</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend the model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend the seams</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mend: {what}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Merge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Merge the chosen layers to a map set</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Merge {count} layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Merged; the layers are kept and can be opened again from the card.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Merging…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mesh: {told}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Metal bays with folded seams standing up between them; height in mm, bays at 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Metalness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Metalness of the layer.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Metalness shift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Meters</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Middle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Middle weight</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mirror</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mirror the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mirrored</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mirrored pair</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Missing pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Missing: {names}; estimated from the others.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mix</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mix by a mask</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mix colours by a mask</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mix the bundle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mix {names}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mixed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mode</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Models ({names})</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Models ({suffixes})</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>More</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>More for layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>More or less metallic by so much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moss</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moss in the joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Most roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Mottling</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moulding</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move a piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move a point</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move places down the slope of a guide.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move places one way, as far as another field says.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move the frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Move the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moved</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moved to the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Moved up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Multiply with a colour, brightness kept.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name a level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name a level…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name a section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name and height, as in sill 936</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name of the band</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name of the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name of the step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name, then tags after a comma</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Neutral</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>New</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>New group</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>New scatter sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>New surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No answer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No channel is above this, in light; 0.871 is code 240.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No channel is below this, in light; 0.013 is code 30.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No courses to count here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No joints, units or stretch of its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No kinds of pieces yet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No lens looks like this: the frame is no rectangle, or the photo was cut from a larger one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No part chosen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No picture yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No rectangle closes better than the whole sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No sun: the overcast sky of the CIE, three times as bright overhead as at the horizon.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No surface to hand over yet; make one in Build.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No surface yet: make one at the left, or from a source in Repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No units that have to close.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No units to count along.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>No whole courses fit by it within its limits.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Noise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Noise of a slope</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Noise of one wavelength and direction, in [0, 1]: what summed Gabor kernels give (Lagae et al. 2009), made from its spectrum, which is exact on the wrapped sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>None</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>None of the missing files lies in {name} or below it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Noon, clear</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Normal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Normal of a height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Normalise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Normals</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>North</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>North positive.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>North wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nosing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Not at true size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Not known here, kept in the job: {names}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Not measured yet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Not mended</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Note</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Note on a section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Note on a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Note on the section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Note on the step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing found that this program reads.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is above this.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is below this.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is kept yet: K keeps what is shown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is laid on it that unrolls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is laid on it, or it is hidden.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing is made from it; it costs nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing stands here yet. Add a piece or open a model.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing stands in it; picture a surface with --surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing to look at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing to {word}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Number</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>OBJ, GLB or PLY</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>OBJ, GLB, PLY or STL</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>OBJ, glTF, GLB, PLY, STL, OFF or DAE</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Occlusion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Octagons and dots</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Octaves</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of a segmental head over its springing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of a segmental or pointed arch over its springing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of a segmental or pointed vault.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of a straight one; a path has its own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of its front.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of its shell at the crown.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of its shell.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of one step, from edge to edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of one step; 150 to 170 where everybody goes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the bay, along x.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the bay, along y.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the cross-section; 0 is its usual one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the shaft at its foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the slopes against level ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of the wall below the coping.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Of {size} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Off the upright</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Offers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Offset</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On a cone or dome: how far over the datum a course is true.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On the part's plane at true size, carried on round its corners: level courses stay level.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On which maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On which side it is measured.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On which side the eye is: 0 right, 90 above, 180 left, 270 below.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One beside the other at equal steps.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One channel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One channel as a field, in light; or its luminance.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One colour everywhere.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One edge drawn.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One file per map; its real size is written into it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One frame per light, then relief and colour are worked out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One more frame on the same photo, as a source of its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One of its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One pixel at a corner changes the proportion by {share} %: type it, or the focal length.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One random value in [0, 1) for each piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One repeat beside the field of many</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One repeat is {length} along: size {factor} ×.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One shape on the wrapped sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One shape on the wrapped sheet: 1 inside, 0 outside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One sheet pixel per screen pixel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One unit is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One value everywhere.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>One value on pieces, another in joints, in [0, 1]; for roughness and metalness.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Only this picture; relief and roughness are estimated from it. Drop a folder to bring a whole set.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Only tone differs at the edges: the smooth part of the edges' jumps is taken out, nothing is cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Opacity</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Opacity of the reference</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a drawing of the profile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a model…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a set and choose files of it first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open it with a newer Brave Tessel.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open or close</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open or close the bundle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open or leave the recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the bundle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the demo job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the folder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the rule's recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the window, with a job or a picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open the {count} merged layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open where nothing lies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>OpenEXR or Radiance HDR</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Opening</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Opening the demo job…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Opening {name}…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Operations found</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Or give a recipe file ending in .json.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Orbit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Others</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Oval</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over how much difference in height one passes into the other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over how much difference one passes into the other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over how much further it fades.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over how wide a neighbourhood mean and spread are taken.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over the foot of the wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over the horizon.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over the profile: stretched up so that one repeat or band covers it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over the road; 100 to 125 are usual.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over the sheet; low lights show fine relief and cast more shadow.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over walls from the origin; its underside meets the outer edge of their tops at the height of its origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Over what width it rises from its edge inward; 0 is an upright edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Overcast</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Overlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Overlap up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Overlap {across:.1f} mm across, {up:.1f} mm up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Overwrite</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Own light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Oyster terrazzo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>PDF (*.pdf)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>PNG, JPEG, TIFF, EXR, HDR, WebP, BMP, TGA, GIF, AVIF, JPEG 2000, DDS, PSD, PPM or camera raw</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>PNG, JPEG, TIFF, EXR, HDR, WebP, BMP, TGA; or drop them anywhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>PNG, or EXR with layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Packed rounded stones, height in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paint</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paint on the board (B); wraps over every edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paint on the board; [ and ] size the brush, Shift draws straight, X erases, Esc ends.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Painted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Palettes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parallax</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parallel ridges, height in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parapet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Part of its tone is paint, and is taken for shading: a light from one side tells of one material.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parts narrower than this are taken out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Parts of a mask that are smaller than a width are taken out.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Passes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Passing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Passing: each layer meets what lies beneath by itself. Closed: they are joined first and meet it as one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paste</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paste layers or steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paste steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paste {many}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Patch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Patches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Patches of fractal noise over a threshold chosen for the cover.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Path: {note}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pavement</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pebble</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pebbles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Perforation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Perhaps relief, {rise} mm in shapes of {broad} mm: part of its tone is paint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Period across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Period up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Perlin and Hoffert's bias and gain in Schlick's rational form (Graphics Gems IV, 1994), on [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Photo with its straightening frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick a colour on the board</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick a share of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick grey or white</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick grey or white on the photo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick light, then shadow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pick the datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Picks one of many equal variants.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Picture (*.png)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pictures ({names})</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pictures and scanned meshes ({names})</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Picture…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Piece ID</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces are moved by up to this much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces are smaller by up to this share.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces are turned by up to this much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces keep clear of each other, pass through each other, or rest on those below.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces lean by up to this much from edge to edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces stand proud or back by up to this much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces thrown at random on the wrapped sheet, none nearer to another than its spacing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces under a third</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces with bites out of their edges and an uneven rim; numbers and places within stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pieces, scenes, models</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pier</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pilaster</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pin</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pin the source as reference</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pin {number}, along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pin {number}, up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pinned</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pitch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pixels on the longer side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Place and size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Place it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Placed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plain colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plain: nothing to join.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plane</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Planks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Planned</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Planner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plinth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Point to where the file is now</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pointed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Points fall on a grid of so many mm; 0 lets them fall where they will.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Points up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Porosity</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Posterise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Preview size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Preview {size} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Profile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Profile from a drawing…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Progress</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Proportion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Proportion as you say {ratio} : 1</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Proposed rectangles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Pull the cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put a ramp between</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put the frame on its patches and take that.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put the frame on the outer corners of the patches.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put the frame's corners on the outer corners of the patches first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put up a room corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put up a street corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put up: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Puts a stock recipe in this one's place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Puts the frame on the picture's edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Quit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Radius</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Radius of the bends of its middle line.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ragged</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rain streaks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rain streaks below ledges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Raise or soften detail of a width in mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Raised</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Raises or lowers everything.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ramp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ramp of colours</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ramp over pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Random ashlar</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Random pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Random value of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Random waves of a band whose power falls by a slope, in [0, 1], mean 0.5; made from its spectrum.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Range</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reach</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Read again when the file changes; what is laid on it stays.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Read from its shading: what faces the light rises towards it. Paint would be taken for relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Read linked files again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Read the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reading the models</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reading {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reads the file again whenever it changes on disk; the job keeps the pixels last read</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ready-made</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Real height of the frame.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Real size in the UVs, so any reader opens it right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Real size of the chosen sets</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Real size, as in 2 m x 2 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Real width of the frame. Sums work: 34*75 is thirty-four courses of 75 mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Recipes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Recipes (*.json)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Recovered work</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rectangular units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Redo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Redo {redo}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reference</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reference picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reference source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reflectance</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reflectance of what is not metal, as a share of the usual 4 %.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Regrow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Regular octagons with square dots between; a dot's side is P(√2 − 1).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief and roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief of an outline in mm about the ground it is cut in; opacity where it changes anything.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief of {rise} mm in shapes of {broad} mm, if it is no paint: a picture of one hue does not tell.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief of {rise} mm in shapes of {broad} mm: its tone changes, its hue hardly does.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relief that goes in comes out, and the other way round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Relink files</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the job…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the layer or part…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rename the surface…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Render</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Renderer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reorder layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Reorder rules</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeat across. Sums work: 8*225 is eight units of 225 mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeat is no whole units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeat up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeats across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repeats up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Repetition score</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Replace a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Replace…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Result</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ribbed copper</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ridge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ridged multifractal noise in [0, 1]: crests where noise of one wavelength crosses zero, finer ones strongest upon the broad (Musgrave, "Texturing and Modeling", chapter 16).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ridges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ridges and hollows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Right, on the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rim</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rims of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ring</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ripple</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ripple size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ripples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ripples, crest to crest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rise and sizes are read from the picture; off to say them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rises</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rising damp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rising to the north from the origin; the upper landing is as deep as one going.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Riven slate roof</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Road</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Road strip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Role of the chosen files</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Role of the chosen files…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Role of {file_name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roof</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Room</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Room corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rope</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rougher or smoother by so much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness from the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness in [0, 1]: a mean, moved by local lightness.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness in colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the lacquer.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the layer.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of the water's surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness of what is cut, where it is painted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness shift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness where it is roughest: 1 becomes this.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roughness where it is smoothest: 0 becomes this.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round studs in staggered rows, height in mm over a ground at 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round the part by true arc length: up along the axis, on domes along the meridian.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round tip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round, standing on the floor at its origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Round-ended tiles hanging in half bond, each covering the joint of those below.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rounded</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rounded run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rounded swellings with creases between, in [0, 1]: the magnitude of noise, octave by octave.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Roundness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Row</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rule mode</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Rule: {mode}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Run along the joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Runs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Runs downward that end in a drop, in [0, 1]; strongest at the drop.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>S&amp;cene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>SVG (*.svg)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Salt</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Saltreach</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Same material</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Same patch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Same patch…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sample</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Samples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Saturation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save as…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save the changes to {name}?</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save the job as</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Saved as {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Saved {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Say where the light came from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scale</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scale 1:{scale} on A3</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scale it down first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scale the channels so that the picked place becomes neutral; von Kries, in linear light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scale the surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scan</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scatter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scatter sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scene with real-size UVs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Schedule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Scratches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sea salt</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seam along the upright join and the one across; click to see the worst place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seam of every map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seam score</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seam score {worst:.2f} at its worst ({where}).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seamless surfaces that know their real size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seams</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Search names and tags</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Search the library</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Searches every rectangle of the sheet for sides that agree</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seat cloth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seat velvet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section A</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section along the cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section of the edging.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section of the step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section {title}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sections</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seeds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seen along the scene's directions or the part's own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seen from three sides and mixed by where a face looks: for rock, heaps and carved work.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set a map right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set at least four pins.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set or file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set pins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set repeats</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the hatch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the hour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the lens curvature</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the lights further apart.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the scene up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set the size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set {dial}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set {label}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Set-up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sets found</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sets repeats up along with repeats across, in proportion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sett</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Setting out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Setting-out sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Setting-out sheet…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Settle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Setts in segmental arcs side by side: each arc spans a fan's width and rises by a fifth of it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Several colours spread over a field in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shape</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shape of a hole.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shape of a rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shape of the rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shape of the slope.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shapes up to this size count; broader tone is taken for colour.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share cut off at either end.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of a step between two blocks.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of a step that is left between two.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of pieces that are missing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of pieces that are picked.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of stones that are two smaller ones instead; above 0 the courses break.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of the edges that is chipped.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of the pieces that are covered.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Share of the sheet that is covered.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sharp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sharpen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sharpen radius</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sharpness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheen roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheet of A4</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheet of bands (.png, .json)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheet with holes in rows: 1 is sheet, 0 is hole; turned over it is studs.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sheets with the same edges and another inside, laid at random; any of them meets any other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shift the pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shift the sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shifts the surface along the face.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shifts the surface up the face.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shingle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shortest waves.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shove</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show a dial on the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show a layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show a rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show all parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show alone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show on the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show the layer alone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show the maps of finishes: coat, sheen, emission and others</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show through</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show where the layer lies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Show {label} on the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shows its own build-up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shrink and grow again (opening), or grow and shrink (closing).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Side by side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sides</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sill stands out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Simulated device: single lights from all round give relief and true colour of a sample.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Simulated fault</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Single cracks that wander over the wrapped sheet and branch, in [0, 1], 1 in the crack.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sink</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size a piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size by counting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size by the known unit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size in pixels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of a grain; snapped so that whole grains fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of a sett with its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of the chips.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of the patches that are mixed: larger than the largest thing that should stay whole.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of the patches: larger than the largest thing that should stay whole.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size of the patches; snapped so that whole patches fill the repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size the frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size the scatter sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Size them</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sizes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sizes of the stones with their joint; the smallest is the module that all are multiples of.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Skeleton</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Skew</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Skew of the placement.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sky</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sky picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sky pictures (*.hdr *.exr *.png *.jpg *.tif)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sky strength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sky: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Skyline</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slant</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slates</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slates or plain tiles in half bond: what is seen of each is its gauge, (length − headlap) / 2 (BS 5534).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slope</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slope over which the cover fades.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Slump</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Smooth lowest or highest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Smooth the edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Smooth, edges kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Smudge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Smudges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Snap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Socket plate, one gang</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Soft</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Soft box</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Soft threshold</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Soften</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Solid</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Some of the pieces of a layer beneath, each covered whole.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Some pieces taken out; the joint goes on where they were.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Something failed inside the program: {error}. Your work is kept.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Something gathered that has its real size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Something whose size is a standard or a habit.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sources</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>South front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spacing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spacing across the join: upright {upright:.2f} (inside {low:.2f} to {high:.2f}), across {across:.2f} (inside {least:.2f} to {most:.2f}).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Span</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Special</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Speckle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Specular</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Specular level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Split</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spots at random, in [0, 1]; 0 between them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spread of the sensor's noise on a mid grey.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Spread outward</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Springing at the height of its origin, its axis running north from the middle of its near edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Springing at the height of its origin, its axis through it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Springing from the floor, its middle at the origin, its front looking south.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Square to the slope.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Square, free-standing, its middle at the origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Squared stones of a few sizes set without courses: no joint runs through for long where another stone fits.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Squared stones of random length in courses of random height, some split in two.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stack</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stages; now {stage}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stairs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stamp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stamp from a source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stamps fall aside by up to so many widths.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stamps of runs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stamps so many widths apart; 0 draws one smooth stroke.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Standing figure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Standing on the floor, its near left corner at the origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Standing seams</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Standing water</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stands</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stands on the floor at its origin and looks south: for scale only.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stands or lies where its origin is, for scale.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start from the datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start from {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start from…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start makes the picture by light paths; it grows clearer while it goes on.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Start them from the datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Starts from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stays in its place and passes on what it is made from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steepest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Step · made from · look · ms at preview size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Step “{names}”</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steps larger than this stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steps of the recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steps of the same section stand under one heading</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Steps to a repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stitches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stitches in columns, each two leaning strands, height in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stones as the cells of strewn points, moved apart until they are about alike (relaxation after Lloyd 1982).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stop and keep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stopped.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stopped. Files already complete stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stopped; nothing was added.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stopped; what is there is kept.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stops</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Straight</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Straighten</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Straighten a photo by four corners; the proportion follows from the view.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Straighten it by its rows, or use best cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strands laid round each other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stray</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stray pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Streaks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Street</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Street corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strength of each finer octave against the one before.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretch to [0, 1] by percentiles; the rest is cut off.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretched</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretched along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretched along so that whole ones fill the path from its start.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretched up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stretches it so that whole repeats go round.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strew</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>String course</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strokes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strokes are paths in mm, drawn again at every size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Strokes, last on top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Studs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sun</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sun strength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Surface, lit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Surfaces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Surfaces on it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Surfaces on the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Swap paint and erase</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Swing the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Swings on a hinge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Swirl each piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Switch off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Switch on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Switch the lamp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>T over a place takes from there, A finds it by itself. [ and ] size the brush.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a band</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a dial off the layer's card</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a photo of it on an even ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a piece, such as one stone, out of its outline and set it elsewhere, on every map.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take a variant</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take away instead (X)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take frames</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take frames to see them here, one per light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take frames under single lights with the simulated device</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take it off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take it out, or add its picture again.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take more frames, or mend the light file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take no band</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take one period less.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a kind</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a point</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out a stroke</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out {count} layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out {file_name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the chosen layers out (Del)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the chosen stroke out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the fit back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the focal length from the file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the group apart</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the lamp away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the layer out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the level out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the line away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the lines along edges away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the lines away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the measured lines away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the model as it came</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the part out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the proportion from the view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the reference away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the reference away (Ctrl+Shift+P)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the step out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the step out (Del)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the stroke out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the surface off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take the whole sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take theirs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take this map out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take this rule out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Taken for flat colour: where its tone changes, its hue changes too. Say a rise if it is relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes from here: the next stroke sets where it lands.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes it off the sheet (Del)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes out a lamp's fall-off where the picture shows one, and nothing else; off to say how much.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes out every point the cut was pulled to; double-click one to take out that</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes the cover off again (Del)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes the drawn path away</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes the mending back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Takes the shift out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Taking out {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tarred boards</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Task</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Text</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>That is a folder; choose a file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The base colour of a gathered source's closed sheet, laid in whole repeats.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The box lies as the part does, or as the scene does.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The brush</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The brush paints with {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The bundle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The catalogue</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The cell comes again as it is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The chosen layers with their rules, into your library</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The colour looked for.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The colour that is laid down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The colour.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The compiled tracer is not available (it needs LLVM 17 or newer): the plain one was used.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The curve of its soffit.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The distance to the nearest point, to the second, or how far the second is further.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The eye seldom finds it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The field plus its difference from a blurred one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The field stretched from [0, 1] to [low, high].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The file holds no job.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The file is damaged or no job; choose another.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The file is damaged or no picture; choose another.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The file is damaged; choose another.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The file stays as it is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The first field with the values of the second: rank for rank.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The frame lies on it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The frame now has the size of: {name} ({standard}).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The height follows from the width by the proportion computed from the view.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The height laid down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The higher or lower of two fields with a rounded seam between them (polynomial smooth minimum).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The last measured line is one repeat along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The layer is locked; unlock it first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The layer shows where it is higher than the ground.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The layer shows wherever it is covered, whatever the heights.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The layer's hatch, its mark in the list and the section</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The layer's maps with their colour, roughness, metalness and relief changed; at its defaults they stay the same object.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The lightness, or one channel, of a gathered picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The line it turns about.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The lowest layer is the ground the others meet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The maps of a wrapped sheet turned, moved and mirrored on it; normals turn with it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The mean colour the sheet should have; pick it on any board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The middle line of a mask as a line of a width: the ridge of the distance inside it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The middle of a tube, strip or moulding</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The middle value of a neighbourhood: specks go, edges stay.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The next stroke's brush</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The others stay (Del)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The package for stills is not installed.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The part and its mirror image.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The part's own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The path tracer ended without a picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The photo resolves {number} px per mm, {size} × {size_2} px in all{note}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The picture could not be encoded.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The picture of {name} could not be recovered; add it again before saving.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The pictures are in {folder}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The pins lie in one line; move one of them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The same for its foot and its head; 0 is as wide as between its sides.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The same recipe with other seeds; click one to take it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The second field's value at the nearest place inside a mask, carried outward and falling to 0 at the reach.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The second is multiplied by this first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The second place is no darker than the first: nothing is lifted.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The sheet moved on itself.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The sheet turned by quarters, repeated in whole numbers, mirrored: what closes by itself.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The sheet, straightened, evened and lit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The side of the path it stands out to.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The side that the radius is of.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The solid cannot be drawn here: {failed}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The source needs its real size first; give it in Gather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The steps that make the decal (E)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The steps whose opacity is the cover</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The straightened sheet stands here once there is a picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The sun's place in the sky.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The surface is gone.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The surface lit, and the chosen step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The upper colour where the mask is 1, the lower where it is 0, in linear light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The upper field where the mask is 1, the lower where it is 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The upper field within a band, the lower outside it; the band wraps.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The value everywhere.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The value laid down on roughness, metalness and occlusion.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The view contradicts the focal length: the photo was cut from a larger one, or the frame is no rectangle. The proportion may be off by {share} %.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The view does not tell the proportion.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The view does not tell the proportion: type the height too.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The view does not tell the proportion: type width and height instead.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The way slopes fall that count: 0 right, 90 up, −90 down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The whole straightened frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The wrapped height in mm, mean 0, whose normals these are (Frankot and Chellappa 1988).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The {device} {value}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The {parameter} “{value}” is not known here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Then click any board or picture to take its colour; Esc ends it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Then click the board; each click adds a colour, Esc ends</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Then click the wall where it goes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no such file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no surface to hand over yet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no {parameter} “{value}”.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no {parameter} “{value}”; there is: {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no {parameter}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is no {parameter}; there is: {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>There is none to picture.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thick</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thickness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thickness of a fibre.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thickness of the strip.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thickness of the wire.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thickness of the yarn against a stitch.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thinner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This job was made by a newer version (format {value}; this one reads {allowed}).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This machine cannot draw the model (no OpenGL 3.3). Everything else works.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This part has no unwrap of its own.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This part runs along no path; draw one.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This recipe as a JSON file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This surface has no units to be cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This way does not close the sheet; what is shown is the last that did.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>This {parameter} cannot be worked out; it takes {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Threads of a weave</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Threads over and under each other, height in [0, 1]; each rises where it is on top.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Three fields as red, green and blue light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tick a surface or more.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tick all</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tick none</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tilt</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Time of the last evaluation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Times its kind's size; [ and ] on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tint</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tinted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tip of the brush</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tip: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Title block</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To relief</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To which side it leans, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tone match</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tone of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tongue and groove</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Touch up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Touch-up brushes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Towards</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tracing…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Translucency</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Transmission</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Transparent ground</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Triple</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>True at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>True relief</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>True size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Try again later.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Try again later; what was fetched before is still here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tube</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turbidity of the air: 2 is very clear, 6 is hazy.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn and repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn of the placement.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn over</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn the light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turn what lies within each piece about its middle, less and less toward the edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned and stretched in OKLab, where hue and lightness stay apart.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned anticlockwise by the nearest turn that closes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned anticlockwise.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned anticlockwise; , and . on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned over like a page.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns all hues.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns every hue round the circle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns it about the upright.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns its normals' green round, for a map made the other way.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns the part about the upright, anticlockwise seen from above.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns the relief over, where joints are lighter than stones.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turns the surface about the datum.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turntable</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Twist</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two barrels that cross over a bay, springing from its four corners; the bay's middle is at the origin.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two cells meet where the edges that touch are of one kind.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two colours by a mode of W3C Compositing and Blending Level 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two colours mixed by a field, in linear light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two fields by a mode of W3C Compositing and Blending Level 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two fields by plain arithmetic, nothing cut off.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two heights in mm: the higher one shows, mixed over the feather.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two slopes with gables, four to a ridge, or four to a point.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Two strips</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type a length above 0 mm and below 1 km.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type a number, with a unit if you like.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type another pattern.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type both the width and the height of the frame, or the lens's focal length.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type in the line above the steps what you need, such as cracks.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type the focal length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type the real length of the line in the card.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Uncover a spot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Uncover it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Undo</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Undo the last change.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Undo {undo}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unit along a row</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unit normals of a height, y up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unit {mm} mm along, joint {joint} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unit {unit_mm:.1f} mm, course {course:.1f} mm, joint about {joint_mm:.1f} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Units along the edges, or zigzags running up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Units are stretched to fill it: {sizes} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Units in courses, whole units across and up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unknown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unlock a layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unlock the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unplugged</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unrest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unsaved work</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unsaved work cannot be kept safe: {value}. Save the job, or free some space.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unsaved work could not be read and was set aside: {kept}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unsaved work is kept safe again.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Untitled job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unwrapped</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Up is measured away from the path in the face, round it, or over a moulding's profile.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Up, on the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Upright</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Upright, its front looking south from y = 0, from x = 0 to the right; openings are cut through it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Upright.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Upstand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Use best cut or regrow for a picture without a beat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Use text</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Used by</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>V-cut, round-bottomed, flat with a chamfer; raised with a chamfer, or raised and round.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Value</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Value in the joints.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Value of pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Value on the pieces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Variants</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Variants by seed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Variety</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Vary</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Vary a colour by a field</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Vault</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Vaults and roofs</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Veins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Veins on each side of the middle.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Verdigris copper</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>View</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>View from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>View transform</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>View {number}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Views</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Visibility depth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Walk</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Walk down the slope of a guide from every place and take the mean, lowest or highest of the field on the way.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wall 6 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wall {wall_m} m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wall, floor or ceiling</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Walls and openings</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wander</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wandering cracks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wanted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Warmth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Warp by a guide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Warped clouds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wash down</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Water</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Water depth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Water up to a level in mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wavelength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wavelength at which broad shapes end and fine relief begins.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Way</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ways to break it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ways to make a repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wear</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Weave</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wet shingle bed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wetness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What 1.0 in the file is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a grey card there reflects, 0.18 for most; 0 leaves the exposure as it is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a half becomes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a painted layer's stroke changes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a quarter becomes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a rule gives, stretched, turned over, spread and softened; ``strength`` counts where rules combine.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What a stroke is drawn with.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What another photo's chart told holds here where light and camera were the same</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What becomes 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What becomes 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What becomes a half.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What counts as all.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What counts as nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What every operation does and takes. Lengths are in mm, angles in degrees.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What everything leans to.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is done with both.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is drawn.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is finer than a radius, about a half.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is made of the places read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is pictured</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is so steep or steeper becomes 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is steeper slides down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is taken.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is to look at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is too bright is cut off at white.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What is written; a new line begins a new row.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What it is compared with</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What it is laid around; a developed cone is true all over and opens like a fan.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What lies beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What lies beneath it shows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What lies under the lights; the stand-in's samples are made up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What looks neutral.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What of it is the cover.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What places it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What the middle becomes.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What the shaft carries.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What the shaft stands on.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What the stand-in should do wrong halfway through.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What three quarters become.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where a source's map has one of some colours.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where another layer lies; spread, softened and moved it makes halos, contact shadows, rust beneath bolts.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where each band is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where is the file now?</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it begins, from the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it begins, from the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it is full, from the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it is full, from the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it is on the sheet, from its lower left corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it is typed.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it lies on top now, or where its own rules put it.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where it stands, from north by east; a wall looks south.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its middle lies, along x.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its middle lies, along y.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its middle lies, from the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its middle lies, from the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its own origin lies in what it belongs to</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where one looks at the sheet from, for what it mirrors.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where shape ends and fine grain begins.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the band's middle lies.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the field is 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the field is 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the field is above a half counts as inside.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the ground lies beneath its neighbourhood.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the ground stands over its neighbourhood: what rubs off first.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the layer lies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the light came from, anticlockwise from the right; 90 is from above.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the light stands, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the middle of the band lies, from the foot or the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the mirror stands.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the place in the light lies, from the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the place in the light lies, from the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the place in the shadow lies, from the foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where the place in the shadow lies, from the left.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where-rules</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where-rules, top to bottom</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether every other repeat is mirrored.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether grains run into each other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether it matters which way a slope falls.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether rows are offset by half a pitch.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether strokes are mirrored about the middle of the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether the formulas are used on sRGB codes, as pictures usually are, or on light.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether these numbers were stored with a curve meant for colours</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whether this layer changes the {name} map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which of both is taken.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which of its maps is read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which of its maps; height in mm, estimated where it has none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which side, anticlockwise from the right; 90 faces up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which thread is seen at each place: every upright and every crossing thread is a piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which value of the field lies at level 0.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way it rises within a piece.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way it rises; mirrored ones close at the edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way it runs.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way most run, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the boards run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the green channel of the normal map points; click to change</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the ridge runs.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the ridges run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the seams run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the second looks.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way the streaks run, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way they are wiped, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way they run, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which way, anticlockwise from the right.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>White</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>White and grey</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>White and view transform</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>White is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>White point</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Who</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Who is higher</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Who wins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole length of a slate or plain tile.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole periods along the rows; 0 leaves this way to a free cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole periods up the wall; 0 leaves this way to a free cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole repeats of it across.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole repeats of it up.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole repeats of the source in this surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole scenes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole units near it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Whole view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width about its outline in which its edge is cut where it shows least.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width in which patches lie over each other and are cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width in which the sheet's two sides lie over each other.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a board with its gap.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a channel at both edges; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a channel stone before it; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a crack at its widest.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a dot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a fan.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a hole.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a mesh over its corners.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a piece of this kind.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a run.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a scale.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a scratch.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a seam at its foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a slate.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a stitch.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a stroke.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a stud at its foot.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a thread against their distance.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of a unit without its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of its rounded edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of its rounded upper and lower edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of its rounded upper edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the band.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the brush; [ and ] on the board.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the detail that is raised.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the groove.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the line.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the new sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the rectangle; the repeat is smaller by the overlap.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the rim.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the round opening at its crown; 0 is none.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the rounded edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the rounded edges at the sides.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the shape.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the sheet; pieces cross its edges.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the sloping edge.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width of the way from 0 to 1.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over the flats, with its joint.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over which edges and insides are mixed in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over which edges are steepened.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over which the edge is rounded.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over which the replaced inside is mixed in.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width over which the two sides mix at the cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width to height where you know it, such as 3:2 or 1.414; empty takes it from the view.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width where a crack begins.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Width, on the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Window</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wiped smears, soft and streaky, in [0, 1].</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wire</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>With a line drawn it is the thing's longer side; without one the frame lies round the thing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>With its coping; 1100 guards a fall.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>With whole units: one of them in the middle of the path.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Work out relief and colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Work out the surfaces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Working</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Working out relief and colour…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Working out the surfaces…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Works it out at half resolution: quicker, softer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Worn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Worn edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Worn road</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Worn to the bare</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Worst of the cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Woven cloth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Woven wire in diamonds, 1 on the wire and 0 in the mesh; for opacity and relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write instead</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write it as 600x400mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the demo job, or open it in the window.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the maps of a surface.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the scene as glTF 2.0 binary.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the sheet into a folder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the sheet…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wrote {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wrote {name}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>X</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Y</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Years by the sea</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a Brave Tessel job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a Brave Tessel job (*.tessel)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a change</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a chart of 24 patches, whole and in focus</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a colour as #RRGGBB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a dial of the laying</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a dial, as in size=25mm or large cells/size=25mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a field</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a font</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a font's name</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a gap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a job whose scene it is added to; else a new one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a kept view of the scene, by its name; else the first one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a kit with a name and layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a layer beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a length in mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a model with faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a name that no other step has</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a number</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a path with names of 255 bytes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a pattern that comes again along its rows or up the wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a pattern whose rows lie level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a pattern with at least two courses or units in view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a photo of a 24-patch colour chart in the same light; it makes the colours true</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a picture of the whole sky, twice as wide as high</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a picture of the whole, or a variant: its set has a colour already</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a proportion as 3:2 or 1.5</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a rectangle on the sheet of {width_mm:g} × {height_mm:g} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a repeat above 0 mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a size, as in 600x400mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a source or a recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a step above it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a step is only made from steps above it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a still is PNG or EXR</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a straight edge near the border of the photo, not through its middle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a surface by its name, on a solid; several on a board of samples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a surface cannot be made of itself</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a surface that can be laid flat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a text</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a thin crust that settles in joints</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a view in which neither pair of sides stays parallel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>a whole number</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>above 0 mm and below 1 km</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>above or below</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>across x</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>across y</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>add</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>added</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>agrees with the height map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>albedo alb basecolor basecolour basecol color colour col diffuse diff dif bc base tint</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>all</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>all good</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>all maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>all, unless some are chosen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>along it {along:.2f}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>along the middle of a tube, strip or moulding, found from its mesh</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>along x</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>along y</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>an SVG drawing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>an SVG with shapes, or a cut-out picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>an id that is not taken</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>anisotropy aniso anisotropic</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>anisotropyangle anisotropyrotation anisoangle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>another picture of the same patch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>any</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>any number</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>any size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ao occlusion ambientocclusion occ ambientocc cavityocclusion ambient</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>applies to every map at once</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>arch ring</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as a ring</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as it comes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as it is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as lit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as many as units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as needed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as seen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as was asked for</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as_needed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>aslant</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>aspect</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at least one unit and {least_overlap_mm:.0f} mm of overlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at random</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at {place} turned {angle:g}° · {width} wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at {place} · {width} wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at {x:.0f}, {y:.0f} mm · {on}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>at {x:.1f}, {y:.1f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>avoid</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bare</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>base</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>basket</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bead</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>beaded</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>being taken out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bends straight edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>best first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bits a channel of PNG</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bits per channel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>block</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>blue</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>both</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bottle-green wall tiles, the glaze pooled and crazed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>box</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>breaks off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>brick</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>brightness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>broken</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>brushed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>brushed limewash on floated lime render, worn where it stands proud</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bull-nosed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>burn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by its pixels, when it is read</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by its points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by the hour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bypassed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>capital</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>carry on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cautions count as findings too</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>changed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>channel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>checking…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>child</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>chips of oyster, marble and dark stone in a pale binder, ground flat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>chosen by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>click to fit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>clipped patches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>closed as it is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cloth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>coat clearcoat coatweight</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>coatnormal clearcoatnormal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>coatroughness clearcoatroughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>colour chart</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>colours from the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>common practice</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>coping</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>corner normals</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cornice</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>course {course} from the datum, {told}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>courses to count</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>courses up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cove</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cove skirting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cross</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>curvature curve curv cavity</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>curvature {bend}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cushions in hollows with a damp halo and dry tips</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cut off and lost</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cut out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cut {pieces}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cylinder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dado</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dado rail</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>darken</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>darker</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>datum  {level}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>decal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>detail</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>developed cone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dial=value or step/dial=value</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>diamond</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>difference</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>disc</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>divide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dodge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dome</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>door</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>door leaf</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>door leaf, metric</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dots</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>drag onto faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>drag the rectangle on the sheet; arrows nudge it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>draw bare</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>drawn</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>east</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>eaves</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>edge against edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>either way leaves as much curl, so green cannot be told</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>emission emissive emit glow emis emissivecolor emissioncolor selfillum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>empty</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>encoded</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ends</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>english</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>erased</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>estimated</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>estimated from the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>even</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>every surface flat on one sheet, with name and size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>everywhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>exclusion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>face group</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>face groups or materials, with commas; else the whole part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>face of units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>field</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>figure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>file name</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>fillet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>findings</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>finds the beat of a regular pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flat pallet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flatten</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flemish</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>floor line, NE corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flow, tip, spacing, symmetry</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>focal length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>follow the file: read it again when it changes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>follows gaps between stones</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>follows its file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>foot</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>form, grain, contrast</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>format {job_format} or older</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>four corners in order, none inside the others</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>four frames or more</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>frames of a light rig</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>from the file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>from {x_mm:.0f}, {y_mm:.0f} mm · sides differ {cost:.2f}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>gable</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>gabled</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>garden wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>glTF 2.0 of the scene (.glb)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>glTF without squeezed meshes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>glass</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>glossiness gloss gls smoothness smooth glossy</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>goes in where the height map comes out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>good</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>green</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>grid</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>groin</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>groove</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ground</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>group</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>grown-up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>guide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>half</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>half battered</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hard light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>header</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>height</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>height hgt displacement disp displace bump relief heightmap dsp depth bumpmap parallax</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>height of the lights</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>height {number} mm   slope {slope:.0f}°   roughness {roughness:.2f}   reflectance {reflectance:.2f}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>heights ×{times} · click to change</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>heights ×{times}, as fits · click to change</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hidden · </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>highest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hipped</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hollow</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>how much uneven light is taken out, 0 to 1; by default all of a lamp's slow fall-off, and nothing else</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hue</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>id idmap matid materialid colorid colourid</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in Gather</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in order</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in the face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>inside</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>integrated from the normal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it cannot lie within itself</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it does not answer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it has colour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is a regular pattern without a beat this way: units may be cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is blurred along the join</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is grey, white for the most part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is grey: height or roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is made from {get}, and there is none</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is made from {get}, and there is none yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is made from {missing}, which comes later</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is nearly black and white</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is one plain value</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it is rougher along the join</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it needs too much memory</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it takes {get}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it takes {get}, and that is {get_2}{offer}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it takes {words}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it takes {words}, and that is {get}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>it would be {size:.3g} m across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its alpha varies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its coverage</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its files</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its left end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its lightness as a brush's tip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its lower end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name and, of a surface, a scale bar</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name or id</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name says normal, but its pixels are no unit vectors</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name says normal; it has two channels, the third is worked out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name says normal; its vectors are off length and are made unit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its name tells what each channel is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its own map</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its own maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its pixels are unit vectors</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its pixels are unit vectors once an sRGB curve is taken out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its reader broke</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its reader took over {seconds:g} s</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its right end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its steps rise {rise:.4g} {unit}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its upper end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>jamb at {mm} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>joints at the ends of the run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>keep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>keep: only there · add: there too · cut: not there · multiply by it · lighter, darker: the greater or lesser of both</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kept in the job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kerb</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>keystone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kind ID</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kind of layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>known spacing of courses, as in 75mm; sizes the whole sheet (courses)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>laid flat, stretched by {percent:.0f} % at most</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>laid flat, true</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>laid stretched by {percent:+.0f} %</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lamp out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>layer {index} of {count}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>layer {index} of {count} · kit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>layers copied here</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>laying</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lens curvature</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>less than the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>letters</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>letters with {surface} or {part}, and {file}, as in {surface}_{file}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>level</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>level join</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>level {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>light directions</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>light drift {drift:.0%} before, {drift_2:.0%} after</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>light paths a pixel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lighten</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lighter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lightness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lights from several sides</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>like</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>linear</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lines end at the edges of patches: {kept:.0%} go on, {inside:.0%} elsewhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lines end at the join: {kept:.0%} go on, {inside:.0%} elsewhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lintel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>list the stock recipes and their dials</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lit, its own relief</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lit, relief estimated</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>longer side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>look closer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lower</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lowest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>luminosity</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>machine-readable result on standard output</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>made</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>made by another version</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>map set</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mark of use</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>marks of use, subtle as they come</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mask</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mask masks msk</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mean</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>measured by the light rig</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mend holes, turned faces, gaps and faces without area</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>meshes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>metalness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>metalness metallic metal met mtl metallness metalic</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>middle of an edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mirror</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mirrored across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mirrored up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mm as on 36 × 24 mm film, before the file's</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mm; by default 15 %% of the shorter side, 48 at most</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>monk</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>more than twice the overlap, and less than sample and sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>most of its pixels are unit vectors</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mtllib all
</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>multiply</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>name for a step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>name of a stock recipe, or a recipe file ending in .json</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>name pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nearest</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>needs a size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>new sheet from samples of this one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no answer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no frames</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no plain file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no size yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no source</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no unwrap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>none</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>none cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>none laid yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>none yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>normal normals norm nrm nor nml nrml normalmap nmap tangentnormal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>north</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>north east</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>north west</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not at all</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not reachable</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not to scale here</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not {label}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>notched or slanted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nothing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nothing beneath</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nothing in it tells its size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nothing is drawn in it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nothing to mend</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>now</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of an older result</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of each face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of the axis</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of the mesh</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>of the scene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ogee</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ogee skirting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>on cell or field; strokes wrap over every edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>on the face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>once</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one less: a pier</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one more: an opening</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one of many equal variants</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one plane</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one repeat</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one side is lighter than the other</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>one that ends in .svg, .pdf or .png</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>only this picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>only tone differs at the edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>opacity</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>opacity alpha transparency cutout opac transp</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>open</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>open sky</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>opening  {level}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>origin</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>outside</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>over</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>over a known length</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>over the profile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>overlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>overlay</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>own light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>painted</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pavement, SE corner</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pavilion</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>paving flag</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>picked faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>picked on the model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>piece ID</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>piece on the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pieces on a sheet that wraps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pile</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pins in one line</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pixels of each surface's longer side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pixels of the longer side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pixels of the longer side; by default the photo's own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pixels, as in 900x600</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>places from 0 to 1, as in #336699@0.4</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>plain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>plain skirting</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pointed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>polygon</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>preview or delivery size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>put right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>raise</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>raised</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>raw size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>read again · </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>real height; with --width the proportion is as you say</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>real size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>real size of the picture, as in 600x400mm; follows from --unit where that is given</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>real width of the rectangle, as in 1200mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>recipe · {size} · {n} step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>recipe · {size} · {n} steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>red</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>reoriented</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>repeat {repeat_mm}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>repeat_mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>repeats</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>reveal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ring</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>riser</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>road</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>roughness</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>roughness rough rgh rou</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>round the path</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>rounded</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>rounded stones of two sizes in grit, wet in the hollows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>rows turned {turn:+.2f}°, uprights lean {lean:+.2f}°</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sRGB curve</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>samples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>saturation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>saved {ago} min ago</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>saved {ago} s ago</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sawn deck boards under old tar, worn along the grain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>scanned mesh</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>scans</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>scatter · {size}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>scene</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>scene model</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>screen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>seamed copper gone green, brown where rain keeps it bare</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>second</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>second layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>seconds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>seen square; drag the pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>segmental</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>set by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>set once</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sets</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shading and drift</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shaft</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sheen sheencolor sheencolour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shell</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>short pile in four tones, palest on raised folds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shown alone · </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>simulated supplier</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>size_mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sizes above 0 mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sizes in mm, with commas</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>skin</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>slant</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>slates of 500 × 250 with a lap of 100, lichened</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>slope</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>slopes added</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>smooth</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>so many periods that some of the sheet is left to overlap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>so that the eye does not find it again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>soffit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>soft</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>soft light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>south east</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>south west</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>specular spec spc reflection refl reflect reflectivity specularcolor specularcolour</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>specularlevel speclevel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>splinter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>square</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>square hole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stack</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>staggered</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>star</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>start anew</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>step for {name}, {slot}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stock recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stone in binder, cracked, with a patch and a polished track</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stones</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stored file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straight</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straightened</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straightened size</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straightened; it has no size yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straightening frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>straightens the view</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>streaks, rising damp and dust</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>strength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stretched by {names}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stretched by {stretch:.1f} %</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>strewn pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>strewn pieces, closed on every side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>string course</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>subtract</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>sure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>surface with courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>switch plate</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>take a closer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>that place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the axis of the file that points up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the disk is full</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the file says so</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the item arrived damaged</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the job to write</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the job to write; without it the ways are listed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the layer is locked; unlock it first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the pattern is out of step by {off:.0f} of {beat:.0f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the relief alone</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the scene's</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the setting-out sheet, .svg, .pdf or .png</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the sheet by itself</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the size of the other frames</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the step across it is {times:.1f} times the largest inside</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>these faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>third</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>this job</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>this picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>this place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>this surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>three lengths, as in 4500,0,0</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>three numbers a light, and files beside it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>three numbers per frame</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>to one side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>to scale</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>too few pins</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>too flat to tell which way green points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>too many points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>top one last</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>top to bottom</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>torus</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>translucency translucent sss subsurface scatter scattering</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>transmission transmissive refraction</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>transparent where nothing is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>true mid tones</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>twill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>twill of two yarns with a nap of fibres</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>two levels with a comma between, by name or height in mm; else from end to end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>two with a comma between, as in floor,sill or 0,1248</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>typed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>under a third</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>units along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>units to count along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown piece {op}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown: {named}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown: {value}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unplugged</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unrolled; drag the pattern</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unsure</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to 0.5 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to 1 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to 2 m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to 200 characters</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {largest_px:.0f} mm from this sample</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {length:g} mm, half the sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {max_px} px a side</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {most:g} letters</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {most_pieces} pieces on the sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>up to {most_points} points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>upper</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>upper sill</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>upright</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>upright join</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>upwards</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>v-cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>value</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>variants</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>vault</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>vector</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>verge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>water {names} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>waves</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what each is</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what fits into {memory_budget} GB here</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what follows takes {get}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what is changed; else the best way</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what lies above it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what one unit of the file is; else it is told or guessed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what rubs off and what settles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what the eye finds again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>what the surface is on</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>where it shows</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>which of the surfaces on it; else the one with courses</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>white, grey, tint</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whiteout</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole courses {whole}   cut {cut}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole recipe {total:.1f} ms at {px} px · 4096 px about {at_4096:.1f} s · slowest {slowest} {costs:.1f} ms · at half resolution {half:.1f} ms</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole sheet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>whole units along a run, in place of courses up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>why</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>wide range</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>width x height with a unit, as in 600x400mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>window</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>with the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>without area</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>without stretching</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>worst first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>write over files that are there</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>x {x:.1f} mm, height {height:.2f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>x {x:6.1f}  y {y:6.1f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>x,y,z: where it starts, mm or with a unit; else the scene's datum</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>x,y;x,y;x,y;x,y in photo pixels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>x,y;x,y;x,y;x,y: top left, top right, bottom right, bottom left, in pixels</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>yes or no</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{across} × {up} cells</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{block} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{colour} copied.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{colour} taken. Shift+click gives it to bare faces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{corner:.1f}, {corner_2:.1f} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count:.0f} copies</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count:.0f} px/m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{counted} of {course_mm:g} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{counted}: units are stretched to {unit_mm:.1f} × {course_mm:.1f} mm from {asked_unit_mm:g} × {asked_course_mm:g}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} colours</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} colours kept as {name}; every colour dialog shows them.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} copies left aside</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} covered</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} edges drawn.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} faces picked. Shift adds, Ctrl takes away.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} files found</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} files in {folder}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} files written to {folder}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} files written.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} found, {left} still missing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} found.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} in this wall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} laid by hand</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} maps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} min</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} more sizes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} of at least 4</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} of {all}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} patches are too bright to be read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} pieces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} rectangles found.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} repeats round, {percent:+.1f} % wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} repeats, {percent:+.1f} % wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} s</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} samples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} sets are {size} now.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} steps copied; paste them into any recipe.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} to look at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} triangles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} units, {percent:+.1f} % wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole steps of {number} mm on {number_2} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, cut {pieces}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, joint {before:.1f} → {after:.2f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, moved {mm:+.1f} mm along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, moved {mm:+.1f} mm up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, stretched {percent:+.2f} %</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} whole, unit {before:.1f} → {after:.2f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} · about {sum:.0f} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count} × {number} mm along</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{count}, last on top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{courses} × {number} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{cut}; {count} under a third</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{date}: the sun is down.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{date}: {height}° high, bearing {bearing}°.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{dial} {size}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{early} is made from it and comes before</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{finer:.2f} × finer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{first} Cut: {rest}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{first} None is cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{focal} mm, file</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{frames} with {count} lights</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{help} Codes with commas between; a place may follow, as in #C8B060@0.4.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{help} Shift draws a straight line.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{help} Takes {allowed} in {unit}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{help} Takes {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{how} {ratio} : 1 ± {share} %</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{id} (unknown)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{kind} {number}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{kind} · file missing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{kind} · green unknown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{kind} · no size yet</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label} from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label}, code</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label}, codes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label}, pick</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label}, take from a board</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{label}, value</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{lap:.4g} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{layer} lies on top</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{layer} lies on top by {over} mm, over {beneath}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{layer} {height:+.2f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{least_frames} or more, each with its light</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{least} or more</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{least} to {most}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{length} wide</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{length}: {x} east, {y} north, {z} up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{map}, estimated</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{mm:.0f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{most_bytes} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{most_faces} faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{most}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{most} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{ms:.0f} ms</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{names} of {part}: {area:.2f} m² bare.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{names} read again from its file.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{names} read again from their files.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{names} {value} made from it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} added. {told}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} added{maps}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} fits {size}; it is stretched by {most:.1f} %.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} has lost its source.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} has nothing to pass on; take it out instead.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} imported; it was made for a repeat of {width:g} × {height:g} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} is hidden: {missing} is not in this job.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} is made of it; take {name_2} out there first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} is not where it was; the pixels last read are used.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} is open in another window too. Saving will ask if the other has saved.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} is stretched by {stretch:.0%} to close in this repeat.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} lies on the surface; its rules look at this relief.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} on {part}, {where}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} shifted {across:+.0f} mm along, {up:+.0f} mm up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} was never given its real size.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} was saved by another window since it was opened here.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name} · {bytes:.1f} kB{have}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}, mode</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}, recipe</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}, strength</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}, where</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}, {size} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}: drag it onto faces, with Shift onto a whole part; or click to lay it on what is chosen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}: more</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}: {parts}, in {unit}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{name}: {parts}, taken to be in {unit}: {reason}. Change it in the card.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{note} m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number}  {word} spot, {length}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} m wide, at true scale; wheel to step back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} mm · across {number_2} · up {number_3}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} of {count} pictures, {left} left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} of {count}: {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number} … {number_2} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number}° closes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{number}° off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} corners on open sides</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} dial</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} dials</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} faces turned round</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} faces without area</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} holes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} layer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} layer copied.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} layers</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} layers copied.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} parts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} result</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} results</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} rule</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} rules</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} stroke</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{n} strokes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{of} is a field: a ramp was put between.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{one} has {fine:.0f} px/m beside {other} with {coarse:.0f}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{open:.0f}° open</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{open_count} to look at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{out} out, {up} up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} cannot be read ({value}).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} cannot be read ({value}); it should be {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} cannot be read.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} cannot be read; it should be {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} cannot be {value}; it takes {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} does not take {value}: {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} failed: {value}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} is too large: {value}, and the limit is {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} was changed by something else since it was opened; it was not overwritten.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter} was not written: {value}. What was there before is untouched.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{parameter}: {value}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{part} its own</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{period_mm:.1f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{place}, 2:1</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{px:.0f} px/m</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{px} px in the memory that is free</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{rest:.0f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{samples} samples</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{samples} samples, {left} left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{sets} sets in {files} files.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{shape} × {shape_2} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{share:.0%} of the join looks like nothing else in the picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{share:.1%} of it lies outside sRGB 30 to 240.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{share:.1%} of it reflects {value} than real materials do (sRGB 30 to 240).</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size_mm:g} mm, {count} points</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size} MB here</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size} MB unpacked</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size} m, {count} triangles</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size}, straightened</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size}: {across} × {up} units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{size}: {count} units</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{step} · {does}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{strength:.0%} at {length}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{strength:.1f} × the usual spread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{sum} steps</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{surface} is stretched by {percent:.0f} % on {share:.0f} % of its faces.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{surface} lies {factor:g} times as large as it is.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{surface} on {part}: {count} pieces, the smallest {mm:.0f} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{told} Type a known one to size the sheet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{told} plain</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{told} {remedy}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{told}, {count} changed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{told}; covers {others}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{value:.0f} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{values:g} per m²</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{values}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{value} everywhere</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{value} has no real size yet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{value} in the delivery</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{what} · {depth} bit · about {about_bytes:.1f} MB</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{what}, {name}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{whole} whole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{whole} whole courses of {size} mm.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{whole} whole courses, cut: {rests}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{wide} × {tall} mm; click to see it</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width:g} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width_mm:.4g} × {height_mm:.4g} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width_mm:g} × {height_mm:g} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width_px} × {height_px} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width_px} × {height_px} px · {depth} bit{alpha} · {link_note}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width_px} × {height_px}, {pitch_mm:.2f} px/mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{width} × {height} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{x:7.1f}, {y:7.1f} px</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>{x}, {y} mm</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>| parameter | default | usual | allowed | meaning |</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>± for corners that are one pixel off; more where the photo may be cut from a larger one</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>½ resolution</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>ΔE {mean}</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{named}” was made by another version. It is kept unchanged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{name}” is a door {height:.4g} {unit} high</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{name}” stands {height:.4g} {unit} tall</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{name}” was not closed properly. Open what was recovered?
If not, it is offered again the next time.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{op}” was made by another version. It is kept unchanged.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>“{value}” is no {parameter}; it takes {allowed}.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>‹ Build-up</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>‹ The layer's card</source>
   <translation type="unfinished" />
  </message>
 </context>
</TS>
