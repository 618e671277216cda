#version 330 core
in vec3 uvw;
uniform sampler2D base_colour;
uniform float cut;
void main() {
    if (texture(base_colour, uvw.xy / uvw.z).a < cut) discard;
}
