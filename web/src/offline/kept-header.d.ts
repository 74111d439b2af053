/** The name of what stands in an answer that a telephone kept, and is not of now; put in by the build. */
declare const __KEPT_HEADER__: string
