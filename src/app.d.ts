declare global {
  namespace App {
    interface Error {
      message: string;
      hint?: string;
    }
  }
}

export {};
