declare global {
  namespace App {
    interface Error {
      message: string;
      hint?: string;
      /** Why it was is known, and said: it is no fault of the application. */
      foreseen?: boolean;
    }
  }
}

export {};
