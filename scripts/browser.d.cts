export declare function chromiumHere(): string;
