alter table place add address text;
