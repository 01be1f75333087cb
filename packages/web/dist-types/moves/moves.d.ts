/** Every move there is and was. */
export declare function MovesPlace(): import("react").JSX.Element;
