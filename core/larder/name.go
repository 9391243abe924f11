package larder

// Name is what a row of the tables is called, in British words: whoever shows it puts it into the reader's.
type Name string
