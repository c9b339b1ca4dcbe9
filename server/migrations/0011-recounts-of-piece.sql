-- a piece that goes is looked for among the second counts
create index recount_of_piece on recount (piece_id);
