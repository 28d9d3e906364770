-- The head of a line is a version of that line.
alter table line add foreign key if not exists line_head (head_version, id) references version (id, line);
