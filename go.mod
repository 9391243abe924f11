module mabbin

go 1.26.0

ignore ./web/node_modules
