#version 330 core
in vec2 in_place;        // corners of one triangle that covers the picture
out vec2 place;

void main() {
    place = in_place;
    gl_Position = vec4(in_place, 1.0, 1.0);
}
