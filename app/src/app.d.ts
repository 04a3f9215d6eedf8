declare global {
  namespace App {
    interface PageState {
      /** Said once the page is open. */
      said?: string;
    }
    interface Error {
      code?: string;
      message: string;
    }
  }
}

export {};
