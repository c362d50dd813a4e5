declare global {
  namespace App {
    interface PageState {
      /** The search field of the roster takes the focus. */
      find?: boolean;
    }
  }
}

export {};
