export declare function SignIn(): import("react").JSX.Element;
