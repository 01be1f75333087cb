/** Starting a move takes a domain and nothing else; what was pasted is read while typing. */
export declare function StartMove(): import("react").JSX.Element;
