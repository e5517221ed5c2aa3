/** Where rows come from: puts into a form that is sent what the server reads them by. */
export type Source = (form: FormData) => void;
