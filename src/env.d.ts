declare namespace NodeJS {
  interface ProcessEnv {
    /** What this build of the program was made of; put in by `./surrik`. */
    NEXT_PUBLIC_SURRIK_BUILD?: string;
  }
}
