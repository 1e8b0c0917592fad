/** Endings and kinds of files that measurements come in, for a file field. */
export const MEASURED_FILES = '.txt,.cgats,.cxf,.xml,.csv,.tsv,.ti3,text/plain,text/csv';
