#version 330 core
in vec3 in_position;
in vec3 in_uv;
uniform mat4 view_projection;
out vec3 uvw;
void main() {
    uvw = in_uv;
    gl_Position = view_projection * vec4(in_position, 1.0);
}
