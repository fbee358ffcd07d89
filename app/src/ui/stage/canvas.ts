/** What a stage is painted on: a canvas of the page, or one that a worker paints. */
export type Canvas2D = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
