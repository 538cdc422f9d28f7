-- When work can be done at a place, in its zone: "1 08:00-17:00, 6 09:00-12:00"; null: nobody has said.
alter table place add open_hours text;
