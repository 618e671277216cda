#version 330 core
in vec3 in_position;   // metres
in vec3 in_normal;
in vec2 in_uv;         // repeats, v up
uniform mat4 view_projection;
uniform mat4 light_projection;
out vec3 position;
out vec3 normal;
out vec2 uv;
out vec4 in_light;

void main() {
    position = in_position;
    normal = in_normal;
    uv = in_uv;
    in_light = light_projection * vec4(in_position, 1.0);
    gl_Position = view_projection * vec4(in_position, 1.0);
}
