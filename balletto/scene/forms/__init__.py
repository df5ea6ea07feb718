"""Forms: outlines, strokes, drawings from SVG, flurries, mattes. The data only."""
