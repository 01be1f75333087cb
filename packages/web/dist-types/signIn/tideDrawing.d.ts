/** A tide curve along the foot of the page. */
export declare function TideDrawing(): import("react").JSX.Element;
