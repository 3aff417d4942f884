export declare const findChromium: () => string | undefined
export declare const findHeadlessChromium: () => string | undefined
export declare const findFirefox: () => string | undefined
export declare const findWebKit: () => { window: string; driver: string; screen: string } | undefined
